import type { Page } from '@playwright/test';
import { renderDemo } from '../scripts/ready.mjs';
import { launch } from './browser.ts';
import { DEMO_FOLDER } from './demoFolder.ts';
import { runMarvet } from './marvet.ts';

renderDemo(DEMO_FOLDER);
const marvet = await runMarvet({ demo: DEMO_FOLDER });
const browser = await launch();
const W = { width: 1280, height: 800 };
const P = { width: 390, height: 844 };
const stage = async (page: Page, path: string, trial: string) => {
  await page.goto(marvet.address);
  await page.getByRole('link', { name: trial, exact: true }).click();
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Question' }).waitFor();
  await page.goto(`${page.url().replace(/\/question$/, '')}/${path}`);
  await page.locator('.desk .sheet, .slate-cards').first().waitFor();
  await page.getByText('Working it out').waitFor({ state: 'detached' });
};
const list: [string, string, string, typeof W, ((p: Page) => Promise<unknown>)?, boolean?][] = [
  ['order', 'plan?part=order', 'Fishwife costume', { width: 1280, height: 1150 }],
  ['fault', 'plan?part=fault', 'Wheelhouse boom', W],
  ['vary', 'plan', 'Fishwife costume', { width: 1280, height: 1900 }],
  ['chain', 'kit', 'Fishwife costume', { width: 1280, height: 1000 }, (p) => p.getByRole('button', { name: 'Change Same boom to the camera' }).click()],
  ['library', 'kit?part=library', 'Saltreach', W],
  [
    'item',
    'kit?part=library',
    'Saltreach',
    { width: 1280, height: 1000 },
    async (p) => {
      await p.getByRole('button', { name: 'Change Brackmoor Spit short boom microphone' }).click();
      await p.getByText('More data').click();
    },
  ],
  ['starting', 'question', 'Fishwife costume', W, (p) => p.getByRole('button', { name: 'Start over' }).click()],
  ['runsheet', 'plan/run-sheet', 'Saltreach', W],
  ['runphone', 'plan/run-sheet', 'Saltreach', P],
  ['slates', 'plan/slates', 'Wheelhouse boom', W],
  ['fieldp', 'field', 'Wheelhouse boom', P],
  ['pairs', 'question', 'Saltreach', { width: 1280, height: 2000 }, (p) => p.getByText('Which of two matters more').click()],
  ['criterion', 'question', 'Fishwife costume', { width: 1280, height: 900 }, (p) => p.getByRole('button', { name: 'Change Practical noise floor' }).click()],
  ['kit2', 'kit', 'Fishwife costume', W],
  ['planphone', 'plan?part=design', 'Fishwife costume', P],
];
const wanted = process.argv.slice(2);
try {
  for (const [name, path, trial, size, act, dusk] of list) {
    if (wanted.length && !wanted.includes(name)) continue;
    const page = await browser.newPage({ viewport: size, reducedMotion: 'reduce' });
    page.on('console', (m) => m.type() === 'error' && console.error(`${name}: ${m.text()}`));
    page.on('pageerror', (e) => console.error(`${name}: ${e.message}`));
    if (dusk) await page.addInitScript(() => localStorage.setItem('marvet/look', JSON.stringify({ theme: 'dusk' })));
    await stage(page, path, trial);
    await act?.(page);
    await page.waitForTimeout(400);
    await page.screenshot({ path: `/tmp/shots/z-${name}.png` });
    await page.close();
  }
} finally {
  await browser.close();
  await marvet.dispose();
}
