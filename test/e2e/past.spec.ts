import { readFileSync } from 'node:fs';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

const LEVELS = [
  ['Station', 'Oxygen', 'Day'],
  ['Alder Weir', '9.1', '2026-03-01'],
  ['Birch Ford', '8.2', '2026-03-02'],
  ['Cedar Sluice', '3.8', '2026-03-03'],
];

const limitOf = (sheet: SheetPage) => sheet.bench.getByRole('textbox', { name: 'Threshold' });

/** A rule "oxygen below 5" in a sheet where Alder Weir fell, rose and fell again, and Birch Ford fell once. */
async function withPast(sheet: SheetPage): Promise<void> {
  for (const [cell, level] of [
    ['B2', '4.1'],
    ['B2', '7'],
    ['B3', '2.5'],
    ['B2', '3'],
    ['B3', '6.5'],
  ] as const)
    await sheet.type(cell, level);
  await sheet.isLive();
  await sheet.beginRule('B2', /^Compare with a value/);
  await limitOf(sheet).fill('5');
  await sheet.bench.getByRole('button', { name: 'Save rule' }).click();
  await sheet.bench.getByRole('button', { name: 'Past', exact: true }).click();
}

test('the bench shows what a rule would have found, beside the rule as it is saved, and gives it as a table', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, LEVELS));
  await withPast(sheet);
  // Cedar Sluice is low since it was typed; Alder Weir entered twice, Birch Ford once.
  await expect(sheet.bench.getByText(/^Found 4 times since .*, in 3 cells\./)).toBeVisible();
  await expect(sheet.bench.getByText('1 cell came back.')).toBeVisible();
  await expect(sheet.bench.getByRole('region', { name: 'Found most often' }).getByRole('listitem').first()).toHaveText(
    /^Alder Weir, Oxygen 2 times, .*, still$/,
  );
  expect(await violations(page)).toEqual([]);

  // With another limit fewer are found; the rule as saved stands beside it.
  await limitOf(sheet).fill('2.8');
  await page.keyboard.press('Tab');
  await expect(sheet.bench.getByText(/^Found 1 time since .*, in 1 cell\./)).toBeVisible();
  await expect(sheet.bench.getByText('As saved: 4 times, in 3 cells.')).toBeVisible();
  await sheet.bench.getByRole('button', { name: 'Discard changes' }).click();

  await sheet.openRule('Oxygen is below');
  await sheet.bench.getByRole('button', { name: 'Past', exact: true }).click();
  const download = page.waitForEvent('download');
  await sheet.bench.getByRole('button', { name: 'Download the table' }).click();
  const lines = readFileSync(await (await download).path(), 'utf8')
    .trim()
    .split(/\r?\n/);
  expect(lines).toHaveLength(5);
  expect(lines[0]).toBe('Record,Field,Outcome,Entered,Left,Days');
  expect(lines.filter((line) => line.startsWith('Alder Weir,Oxygen'))).toHaveLength(2);

  await sheet.bench.getByRole('combobox', { name: 'Over' }).selectOption({ label: 'By Day' });
  await expect(sheet.bench.getByText(/^2 of 3 records, by Day/)).toBeVisible();
});

test('a quiet rule says what it would have found, in its sentence, in the legend and in the trace', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, LEVELS));
  await withPast(sheet);
  await sheet.bench.getByRole('button', { name: 'Findings: at once' }).click();
  const findings = page.getByRole('dialog', { name: 'Findings' });
  await findings.getByRole('checkbox', { name: 'At most once in' }).check();
  await findings.getByRole('checkbox', { name: 'Until back at' }).check();
  await findings.getByRole('textbox', { name: 'Until back at' }).fill('4.5');
  await page.keyboard.press('Tab');
  await expect(findings.getByRole('alert')).toContainText('above the limit');
  await findings.getByRole('textbox', { name: 'Until back at' }).fill('6.6');
  await page.keyboard.press('Escape');
  await expect(findings).toBeHidden();
  // Alder Weir came back within the day: it is found once. Birch Ford, at 6.5, never left.
  await expect(sheet.bench.getByText(/^Found 3 times since .*, in 3 cells\./)).toBeVisible();
  await expect(sheet.bench.getByText('Its look came 4 times.')).toBeVisible();
  await expect(sheet.bench.getByText('As saved: 4 times, in 3 cells.')).toBeVisible();
  expect(await violations(page)).toEqual([]);
  await sheet.bench.getByRole('button', { name: 'Save changes' }).click();
  const words = 'until back at 6.6, at most once a day for each cell';
  await expect(sheet.bench.getByRole('button', { name: `Findings: ${words}` })).toBeVisible();
  await sheet.bench.getByRole('button', { name: 'Done' }).click();
  await sheet.goTo('B2');
  await page.getByRole('button', { name: /^Why this cell looks so/ }).click();
  await expect(page.getByRole('list', { name: 'Trace' })).toContainText(`Found ${words}`);
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test('the demo’s readings say what low oxygen would have found', async ({ page }) => {
    const sheet = await SheetPage.open(page, 'station-readings');
    await sheet.openRule('Low oxygen');
    await sheet.bench.getByRole('button', { name: 'Past', exact: true }).tap();
    // The probes that were misread in the demo's past, and corrected.
    await expect(sheet.bench.getByText(/^Found \d+ times since /)).toBeVisible();
    await expect(sheet.bench.getByRole('img', { name: /entered, \d+ left/ })).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  });
});
