import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';

/**
 * The accessibility violations of a page by axe-core (WCAG 2, and good practice): each rule with the first element that
 * breaks it; and keys of the catalogue that are shown in place of their texts. `narrow` leaves rules or parts of the page out.
 */
export async function violations(page: Page, narrow = (axe: AxeBuilder) => axe): Promise<string[]> {
  // The page has no frames, so axe need not open another window to put its results together.
  const found = await narrow(new AxeBuilder({ page }).setLegacyMode()).analyze();
  const keys = await page.evaluate(() => {
    const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    const found: string[] = [];
    for (let text = texts.nextNode(); text; text = texts.nextNode())
      if (!text.parentElement?.closest('script, style'))
        found.push(...(text.textContent?.match(/(?<![\w.=(])[a-z]+(?:[A-Z][a-z]+)+(?![\w(])/g) ?? []));
    return found;
  });
  return [
    ...found.violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html}`),
    ...keys.map((key) => `the key of a text in its place: ${key}`),
  ];
}
