import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/**
 * Nothing on the page keeps anybody from using it, as far as a program can tell: contrast, names, roles.
 * @param rules only these; all where none are named
 */
export async function accessible(page: Page, rules?: string[]): Promise<void> {
  // No page has frames in it: looking for them, and listing all that is right, would take most of the time.
  const axe = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'], ...(rules && { runOnly: rules }) });
  const { violations } = await axe.analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 300)).slice(0, 3)}`)).toEqual([]);
}
