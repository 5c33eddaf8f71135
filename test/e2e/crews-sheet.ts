import type { Page } from '@playwright/test';
import { makeSheet, SheetPage } from './sheet-page';
import { expect } from './test';

export const CREWS = ['Fern', 'Moss', 'Fern', 'Reed', 'moss ', 'Fern', 'Sedge', 'Reed'];
export const OXYGEN = [4.1, 9.2, 7, 5, 8.8, 6.4, 3.9, 7.7];
export const PLANNED = [5, 8, 7, 6, 8, 7, 6, 7];
const day = (away: number) => new Date(Date.now() + away * 86_400_000).toISOString().slice(0, 10);
export const DUE = [-3, 0, 2, 30, 6, -40, 1, 400];
const ROWS = [
  ['Crew', 'Oxygen', 'Planned', 'Due', 'Note'],
  ...CREWS.map((crew, at) => [crew, String(OXYGEN[at]), String(PLANNED[at]), day(DUE[at]!), at % 3 ? '' : 'seen']),
];
export const rows = CREWS.map((_, at) => at + 2);
export const where = (column: string, holds: (at: number) => boolean) =>
  rows.filter((_, at) => holds(at)).map((row) => `${column}${row}`);

/** Opens a new sheet with these rows. */
export async function openCrews(page: Page): Promise<SheetPage> {
  return SheetPage.open(page, await makeSheet(page, ROWS));
}

/** Names the rule on the bench, and checks which cells of a column it paints. */
export async function painted(sheet: SheetPage, column: string, expected: readonly string[]): Promise<void> {
  await sheet.bench.getByLabel('Name of the rule').fill('Tried');
  await expect.poll(() => sheet.paintedBy('Tried', column, rows)).toEqual(expected);
  await sheet.page.keyboard.press('Escape');
  await expect(sheet.bench).toBeHidden();
}
