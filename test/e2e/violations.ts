import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/**
 * The accessibility violations of a page by axe-core (WCAG 2, and good practice): each rule with the first element that
 * breaks it. `narrow` leaves rules or parts of the page out.
 */
export async function violations(page: Page, narrow = (axe: AxeBuilder) => axe): Promise<string[]> {
  // The page has no frames, so axe need not open another window to put its results together.
  const found = await narrow(new AxeBuilder({ page }).setLegacyMode()).analyze();
  return found.violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html}`);
}
