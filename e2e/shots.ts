import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { Page } from '@playwright/test';
import { launch } from './browser.ts';
import { DEMO_DATA, DEMO_FOLDER } from './demoFolder.ts';
import { DOOR_ADDRESS, runMarvet } from './marvet.ts';
import prepare from './prepareDemo.ts';
import { filesOf, threeMicrophones } from './yesterday.ts';

const OUT = process.env.SHOTS_FOLDER ?? fileURLToPath(new URL('../docs/screenshots', import.meta.url));
const WIDE = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };
const wanted = process.argv.slice(2);

interface Shot {
  name: string;
  size: { width: number; height: number };
  theme?: 'dusk';
  go: (page: Page, address: string) => Promise<void>;
}

/** Opens a stage of the demo's first or second trial. */
const stage =
  (path: string, trial = 'Saltreach') =>
  async (page: Page, address: string) => {
    await page.goto(address);
    await page.getByRole('link', { name: trial, exact: true }).click();
    await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Question' }).waitFor();
    await page.goto(`${page.url().replace(/\/question$/, '')}/${path}`);
    await page.locator('.desk .sheet, .desk .drop').first().waitFor();
  };

/** Two takes that may not be compared, picked up into the tray. */
async function pickUnfairPair(page: Page): Promise<void> {
  await page.getByRole('checkbox', { name: /Take 01 Quoinholt Osier/ }).check();
  await page.getByRole('checkbox', { name: /Take 04 Lowbrack Bittern/ }).check();
}

const SHOTS: Shot[] = [
  { name: 'question', size: WIDE, go: stage('question') },
  { name: 'kit', size: WIDE, go: stage('kit') },
  { name: 'placing', size: WIDE, go: stage('placing', 'Wheelhouse boom') },
  { name: 'body', size: WIDE, go: stage('placing?part=body', 'Fishwife costume') },
  { name: 'plan', size: WIDE, go: stage('plan') },
  { name: 'field-phone', size: PHONE, go: stage('field', 'Wheelhouse boom') },
  {
    name: 'walk',
    size: WIDE,
    go: async (page, address) => {
      await stage('field?view=walk', 'Reed bank walk')(page, address);
      await page.getByRole('button', { name: 'Slate before' }).click();
      await page.getByRole('img', { name: /^The way of the walk/ }).waitFor();
      await page.getByRole('figure', { name: 'Radio level against distance' }).locator('svg.recharts-surface').first().waitFor();
    },
  },
  {
    name: 'devices',
    size: WIDE,
    theme: 'dusk',
    go: async (page, address) => {
      await stage('field?view=devices', 'Wheelhouse boom')(page, address);
      await page.getByRole('button', { name: 'Start and adopt them' }).click();
      await page.getByText('live', { exact: true }).nth(4).waitFor();
    },
  },
  {
    name: 'record',
    size: WIDE,
    go: async (page, address) => {
      await page.context().grantPermissions(['microphone']);
      await stage('field?view=record', 'Wheelhouse boom')(page, address);
      await page.getByRole('button', { name: 'Look for inputs' }).click();
      await page.getByRole('button', { name: 'Listen to it' }).click();
      await page.getByLabel('Record every take').check();
      await page.getByRole('button', { name: /^Start take/ }).click();
      await page
        .getByText(/clipping/)
        .first()
        .waitFor();
      await page.mouse.move(0, 0);
    },
  },
  {
    name: 'phones',
    size: WIDE,
    theme: 'dusk',
    go: async (page, address) => {
      await stage('field?view=phones', 'Wheelhouse boom')(page, address);
      await page.getByLabel('Address of this computer').selectOption(DOOR_ADDRESS);
      await page.getByRole('button', { name: 'Open the door' }).click();
      await page.getByRole('button', { name: 'Give a code to log this trial' }).click();
      await page.getByRole('region', { name: 'Code' }).waitFor();
    },
  },
  {
    name: 'takes',
    size: WIDE,
    go: async (page, address) => {
      await stage('takes')(page, address);
      await pickUnfairPair(page);
    },
  },
  {
    name: 'inside',
    size: WIDE,
    go: async (page, address) => {
      await stage('takes')(page, address);
      await page.getByRole('region', { name: 'Table of recordings' }).getByRole('link').nth(2).click();
      await page.getByRole('slider', { name: /Level over time/ }).waitFor();
    },
  },
  { name: 'figures', size: WIDE, go: stage('takes?view=figures&figure=intelligibility.sii') },
  {
    name: 'difference',
    size: WIDE,
    go: async (page, address) => {
      await stage('takes', 'Hire shelf')(page, address);
      await page.getByRole('checkbox', { name: /Take 01 Hobbleford, noise reduction/ }).check();
      await page.getByRole('checkbox', { name: /Take 01 Belt recorder/ }).check();
      await page.getByRole('button', { name: 'Difference' }).click();
      await page.getByText('Coherent signal to noise').waitFor();
    },
  },
  {
    name: 'begin',
    size: WIDE,
    go: async (page, address) => {
      await page.goto(address);
      await page
        .getByRole('region', { name: 'Begin with recordings' })
        .getByLabel('Sound files')
        .setInputFiles(filesOf(await threeMicrophones()));
      await page.getByRole('button', { name: 'Lay them side by side' }).waitFor({ timeout: 90_000 });
    },
  },
  {
    name: 'listen',
    size: WIDE,
    theme: 'dusk',
    go: async (page, address) => {
      await stage('takes')(page, address);
      for (const name of ['Quoinholt Osier', 'Lowbrack Bittern', 'Brackmoor boom']) await page.getByRole('checkbox', { name: new RegExp(`Take 01 ${name}`) }).check();
      await page
        .getByRole('region', { name: 'Tray' })
        .getByRole('button', { name: /^Listen/ })
        .click();
      await page.getByRole('button', { name: 'Play' }).and(page.locator(':enabled')).click();
      await page.keyboard.press('b');
    },
  },
  { name: 'blind-phone', size: PHONE, go: blind },
  { name: 'verdict', size: WIDE, go: stage('verdict') },
  { name: 'report', size: WIDE, go: stage('verdict/report') },
];

async function blind(page: Page, address: string): Promise<void> {
  await stage('listen')(page, address);
  await page.getByRole('textbox', { name: 'Listener' }).first().fill('Sanne');
  await page.getByRole('textbox', { name: 'Listened on' }).first().fill('closed headphones');
  await page.getByRole('button', { name: 'Listen blind' }).first().click();
  await page.getByRole('button', { name: 'Play' }).and(page.locator(':enabled')).waitFor();
  await page.getByRole('radiogroup').first().getByText('7', { exact: true }).click();
}

await prepare();
await mkdir(OUT, { recursive: true });
const marvet = await runMarvet({ demo: DEMO_FOLDER, copyOf: DEMO_DATA, ...(process.env.SHOTS_DATA ? { dataFolder: process.env.SHOTS_DATA } : {}) });
const browser = await launch();
try {
  for (const { name, size, theme, go } of SHOTS) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    const page = await browser.newPage({ viewport: size, reducedMotion: 'reduce' });
    page.on('console', (message) => message.type() === 'error' && console.error(`${name}: ${message.text()}`));
    page.on('pageerror', (error) => console.error(`${name}: ${error.message}`));
    if (theme) await page.addInitScript(() => localStorage.setItem('marvet/look', JSON.stringify({ theme: 'dusk' })));
    await go(page, marvet.address);
    await page.waitForLoadState('networkidle').catch(() => undefined);
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: join(OUT, `${name}.png`) });
    await page.close();
  }
} finally {
  await browser.close();
  await marvet.dispose();
}
