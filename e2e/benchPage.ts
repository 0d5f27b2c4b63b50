import type { Locator, Page } from '@playwright/test';
import { launch } from './browser.ts';
import { runMarvet } from './marvet.ts';
import { seedTakes } from './seedTakes.ts';
import { ask, smallTrial } from './smallTrial.ts';

const RECORDINGS = 5000;
/** What the budget allows. */
const MOST_MS = 100;

/** While a page opens there is nothing in it yet that could answer. */
const OPENED = 'Question, opened';

/** What is done in a page, and what is then in sight. */
interface Step {
  name: string;
  go(page: Page): Promise<unknown>;
  until(page: Page): Locator;
}

/** Prints the longest stretch in which the page could not answer, in each of the steps that a large trial makes hard. */
async function benchPage(): Promise<void> {
  const marvet = await runMarvet();
  const browser = await launch();
  try {
    const { trialId, chainIds } = await smallTrial(marvet.address);
    const criterion = { name: 'Voice over noise', kind: 'measured', measureId: 'noise.snrDb', weight: 1, best: 40, worst: 0, position: 0 };
    await ask(marvet.address, 'POST', `/trials/${trialId}/criteria`, criterion);
    seedTakes(marvet.dataFolder, trialId, chainIds, RECORDINGS);
    const at = (stage: string) => `${marvet.address}/trials/${trialId}/${stage}`;
    const table = (page: Page) => page.getByRole('region', { name: 'Table of recordings' });
    const link = (page: Page, name: string) => page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name });
    const tray = (page: Page) => page.getByRole('region', { name: 'Tray' });
    const sheet = (page: Page) => page.locator('.desk .sheet').first();
    const steps: Step[] = [
      { name: OPENED, go: (page) => page.goto(at('question')), until: sheet },
      { name: 'Takes, gone to', go: (page) => link(page, 'Takes').click(), until: (page) => table(page).getByRole('row').nth(3) },
      {
        name: 'Takes, sorted',
        go: (page) =>
          table(page)
            .getByRole('button', { name: /Voice over noise/ })
            .click(),
        until: (page) => table(page).locator('[aria-sort="ascending"], [aria-sort="descending"]'),
      },
      {
        name: 'Takes, scrolled to the end',
        go: (page) => table(page).evaluate((scroll) => scroll.scrollTo(0, scroll.scrollHeight)),
        until: (page) => table(page).locator(`tr[aria-rowindex="${RECORDINGS + 1}"]`),
      },
      { name: 'Takes, one picked up', go: (page) => table(page).getByRole('checkbox').nth(-8).check(), until: tray },
      { name: 'Takes, another picked up', go: (page) => table(page).getByRole('checkbox').nth(-9).check(), until: (page) => tray(page).locator('.tray-take').nth(1) },
      {
        name: 'Files of takes',
        go: (page) => page.getByRole('button', { name: /^Files/ }).click(),
        until: (page) => page.getByRole('region', { name: 'Table of files' }).getByRole('row').nth(3),
      },
      {
        name: 'Figures over the plan',
        go: (page) => page.getByRole('button', { name: 'Figures over the plan' }).click(),
        until: (page) => page.locator('.desk .sheet table, .desk .sheet .soft').first(),
      },
      { name: 'Plan, gone to', go: (page) => link(page, 'Plan').click(), until: sheet },
      { name: 'Field, gone to', go: (page) => link(page, 'Field').click(), until: sheet },
      { name: 'Listen, gone to', go: (page) => link(page, 'Listen').click(), until: sheet },
      { name: 'Verdict, gone to', go: (page) => link(page, 'Verdict').click(), until: sheet },
      { name: 'Takes, gone to again', go: (page) => link(page, 'Takes').click(), until: (page) => table(page).getByRole('row').nth(3) },
    ];
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.addInitScript(() => {
      const kept = window as unknown as { blocks: number[] };
      kept.blocks = [];
      new PerformanceObserver((list) => kept.blocks.push(...list.getEntries().map((entry) => entry.duration))).observe({ type: 'longtask', buffered: true });
    });
    console.log(
      `Longest time in which the page could not answer, at ${RECORDINGS} recordings (at most ${MOST_MS} ms once it is open; what is under 50 ms is not told by the browser):`,
    );
    for (const { name, go, until } of steps) {
      await go(page);
      await until(page).waitFor();
      // What is still being drawn belongs to the step.
      await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 500)));
      const longestMs = await page.evaluate(() => {
        const kept = window as unknown as { blocks: number[] };
        return Math.max(0, ...kept.blocks.splice(0));
      });
      console.log(`  ${name.padEnd(30)} ${longestMs === 0 ? 'under 50' : longestMs.toFixed(0).padStart(8)} ms${longestMs > MOST_MS && name !== OPENED ? '  OVER' : ''}`);
    }
  } finally {
    await browser.close();
    await marvet.dispose();
  }
}

await benchPage();
