import type { Page } from '@playwright/test';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

const OXYGEN = ['3', '4', '4.5', '5', '5.5', '6', '7', '8', '9', '10'];
const ROWS = [['Station', 'Oxygen', 'Planned'], ...OXYGEN.map((value, at) => [at % 2 ? 'Alder' : 'Birch', value, '6'])];

const threshold = (sheet: SheetPage) => sheet.bench.getByRole('textbox', { name: 'Threshold', exact: true });

async function dragThreshold(page: Page, sheet: SheetPage, byPx: number) {
  const grip = (await sheet.bench.locator('circle').boundingBox())!;
  await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
  await page.mouse.down();
  await page.mouse.move(grip.x + grip.width / 2 + byPx, grip.y, { steps: 8 });
}

test('dragging a threshold recolours the sheet while it moves; a second tab sees it once it is kept', async ({
  page,
  context,
}) => {
  const id = await makeSheet(page, ROWS);
  const sheet = await SheetPage.open(page, id);
  const other = await SheetPage.open(await context.newPage(), id);
  await page.bringToFront();
  await sheet.beginRule('B2', /Compare with a value/);
  await sheet.bench.getByLabel('Name of the rule').fill('Low');
  await threshold(sheet).fill('5');
  await expect(sheet.count('Low')).toHaveText('3 of 60');
  await sheet.bench.getByRole('button', { name: 'Save rule' }).click();
  await expect(other.count('Low')).toHaveText('3 of 60');

  await dragThreshold(page, sheet, 150);
  // Still held: the count, the threshold and the cells follow already, here alone.
  await expect(sheet.count('Low')).not.toHaveText('3 of 60');
  await expect(sheet.cell('B5')).toHaveAttribute('data-fill', '#fde5ac');
  expect(Number(await threshold(sheet).inputValue())).toBeGreaterThan(5.5);
  await expect(other.count('Low')).toHaveText('3 of 60');
  await page.mouse.up();
  await sheet.bench.getByRole('button', { name: 'Save changes' }).click();
  const count = (await sheet.count('Low').textContent())!;
  await expect(other.count('Low')).toHaveText(count);
  await expect(other.cell('B5')).toHaveAttribute('data-fill', '#fde5ac');

  // Both tabs see each other's edits.
  await other.page.bringToFront();
  await other.type('B11', '0.5');
  await expect(sheet.cell('B11')).toHaveText('0.5');
  await expect(sheet.cell('B11')).toHaveAttribute('data-rules', 'Low');
});

test('Escape puts back what was there; arrow keys step a threshold', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.beginRule('B2', /Compare with a value/);
  await sheet.bench.getByLabel('Name of the rule').fill('Low');
  await threshold(sheet).fill('5');
  await sheet.bench.getByRole('button', { name: 'Save rule' }).click();
  const handle = sheet.bench.getByRole('slider', { name: 'Threshold' });
  await handle.focus();
  await page.keyboard.press('PageUp');
  await page.keyboard.press('PageUp');
  await expect(sheet.count('Low')).not.toHaveText('3 of 60');
  await page.keyboard.press('Escape');
  await expect(sheet.bench).toBeHidden();
  await expect(sheet.count('Low')).toHaveText('3 of 60');
});

test('a whole record by two fields: the sentence offers the record, another field, and a factor', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.beginRule('B2', /Compare with a value/);
  await sheet.pick('Threshold is', 'the record’s Planned');
  await sheet.bench.getByLabel('Threshold: tolerance').fill('-10%');
  await sheet.pick('Paints', 'the whole record');
  // 3, 4, 4.5 and 5 are below 0.9 × 6.
  await expect(sheet.bench.getByTestId('bench-count')).toContainText('4 of 60 cells');
  for (const address of ['A2', 'C2', 'A5']) await expect(sheet.cell(address)).toHaveAttribute('data-fill', '#fde5ac');
  // Fields without a label or a value are no part of the record.
  for (const address of ['A6', 'G5']) await expect(sheet.cell(address)).not.toHaveAttribute('data-fill');
  await expect(sheet.bench.getByLabel('Name of the rule')).toHaveValue('Oxygen is below 0.9 × Planned');
});

test('the bench never covers the cell that is worked on', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.beginRule('B24', /Compare with a value/);
  const [cell, bench] = [(await sheet.cell('B24').boundingBox())!, (await sheet.bench.boundingBox())!];
  await expect.poll(async () => (await sheet.cell('B24').boundingBox())!.y + cell.height <= bench.y).toBe(true);

  // Its edge is dragged, or moved by keys; ten rows of the sheet stay, and the height is kept.
  const edge = page.getByRole('separator', { name: 'Height of the bench' });
  const heightOf = async () => (await sheet.bench.boundingBox())!.height;
  await edge.hover();
  await page.mouse.down();
  await page.mouse.move(600, 100, { steps: 4 });
  await page.mouse.up();
  await expect.poll(heightOf).toBeGreaterThan(bench.height + 40);
  const rows = sheet.grid.getByRole('row');
  const inView = async () => {
    const view = (await sheet.grid.boundingBox())!;
    const boxes = await Promise.all((await rows.all()).map((row) => row.boundingBox()));
    return boxes.filter((box) => box !== null && box.y >= view.y && box.y + box.height <= view.y + view.height).length;
  };
  await expect.poll(inView).toBeGreaterThanOrEqual(10);
  await edge.press('ArrowDown');
  const lower = await heightOf();
  await sheet.bench.getByRole('button', { name: 'Save rule' }).click();
  await sheet.isLive();
  await page.reload();
  await sheet.openRule('Oxygen is');
  await expect.poll(heightOf).toBe(lower);
});

test('averages by group, and bands whose cuts leave no gap', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.beginRule('B2', /Above or below average/);
  await sheet.pick('Among', 'its Station');
  // Birch: 3, 4.5, 5.5, 7, 9, mean 5.8; Alder: 4, 5, 6, 8, 10, mean 6.6.
  await expect(sheet.bench.getByTestId('bench-count')).toContainText('4 of 60 cells');
  await sheet.keepRule();

  await sheet.beginRule('B2', /Sort into bands/);
  await sheet.bench.getByRole('textbox', { name: 'Cut 1' }).fill('5');
  await sheet.bench.getByRole('textbox', { name: 'Cut 2' }).fill('8');
  const bands = sheet.bench.getByRole('list', { name: 'Bands' }).getByRole('listitem');
  await expect(bands.nth(0)).toContainText('3 cells');
  await expect(bands.nth(1)).toContainText('4 cells');
  await expect(bands.nth(2)).toContainText('3 cells');
  await sheet.pickLook('Look of band 3', 'Clear');
  await expect(sheet.cell('B9')).toHaveAttribute('data-fill', '#cfe8dc');
  await sheet.bench.getByRole('button', { name: 'Add a cut' }).click();
  await expect(bands).toHaveCount(5);
  await sheet.bench.getByRole('button', { name: 'Save rule' }).click();
  await expect(sheet.legend.getByRole('listitem')).toHaveCount(2);
});

test('rules are put in order, switched off, duplicated and removed', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  for (const [name, look] of [
    ['First', 'Cool'],
    ['Second', 'Plum'],
  ] as const) {
    await sheet.beginRule('B2', /Compare with a value/);
    await sheet.bench.getByLabel('Name of the rule').fill(name);
    await threshold(sheet).fill('5');
    await sheet.pickLook('Look', look);
    await sheet.bench.getByRole('button', { name: 'Save rule' }).click();
    await sheet.bench.getByRole('button', { name: 'Done' }).click();
  }
  // A new rule comes first, so it wins.
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#e9d8f0');
  await sheet.ruleMenu('First', 'Move up');
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#d3e4f6');
  const grips = sheet.legend.getByRole('button', { name: /^Move / });
  await grips.first().focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(150);
  await page.keyboard.press('ArrowDown');
  await page.waitForTimeout(150);
  await page.keyboard.press('Space');
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#e9d8f0');
  await sheet.ruleMenu('Second', 'Turn off');
  await expect(sheet.count('Second')).toHaveText('off');
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#d3e4f6');
  await sheet.ruleMenu('First', 'Duplicate');
  await expect(sheet.entry('First (copy)')).toBeVisible();
  await sheet.ruleMenu('First (copy)', 'Delete');
  await sheet.ruleMenu('Second', 'Delete');
  await expect(sheet.legend.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.legend.getByRole('listitem')).toHaveCount(2);
});

test('a percentage is typed as it is shown, and what is not a number changes nothing', async ({ page }) => {
  const sheet = await SheetPage.open(page, 'station-readings');
  await sheet.openRule('Well aerated');
  const end = sheet.bench.getByRole('textbox', { name: 'One end' });
  await expect(end).toHaveValue('95%');
  const before = await sheet.count('Well aerated').textContent();
  await end.fill('100');
  await expect(sheet.count('Well aerated')).not.toHaveText(before!);
  const atHundred = await sheet.count('Well aerated').textContent();
  await end.fill('100%');
  await expect(sheet.count('Well aerated')).toHaveText(atHundred!);
  await end.fill('');
  await expect(end).toHaveAttribute('aria-invalid', 'true');
  await expect(sheet.count('Well aerated')).toHaveText(atHundred!);
  await sheet.bench.getByRole('button', { name: 'Discard changes' }).click();
  await expect(sheet.count('Well aerated')).toHaveText(before!);
});
