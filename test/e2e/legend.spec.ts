import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

const ROWS = [
  ['Station', 'Oxygen', 'Nitrate', 'Planned'],
  ['Alder Weir', '4.2', '7', '6'],
  ['Birch Ford', '8.1', '2.5', '6'],
  ['Cedar Sluice', '6.4', '12', '6'],
];
const rows = [2, 3, 4];

/** A sheet with three rules: on a field each, and one that paints the whole record. */
async function withRules(page: Parameters<typeof makeSheet>[0]): Promise<SheetPage> {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  for (const [cell, words] of [
    ['B2', 'oxygen below 7 as alarm'],
    ['C2', 'nitrate above 5 as watch'],
    ['B2', 'whole record where oxygen above 8 as clear'],
  ] as const) {
    await sheet.cell(cell).click();
    await sheet.say(words);
    await sheet.leaveBench();
  }
  return sheet;
}

test('several rules are chosen, given a look together, settled, switched off, and brought back by one undo each', async ({
  page,
}) => {
  const sheet = await withRules(page);
  await sheet.ruleMenu('Oxygen is below 7', 'Select');
  await sheet
    .entry('Nitrate is above 5')
    .locator('button[aria-pressed]')
    .click({ modifiers: ['Control'] });
  await expect(sheet.legend.getByRole('heading', { name: '2 rules selected' })).toBeVisible();
  await sheet.legend.getByRole('button', { name: 'Look of the selected rules:' }).click();
  await page
    .getByRole('dialog', { name: 'Look of the selected rules' })
    .getByRole('button', { name: 'Plum', exact: true })
    .click();
  await page.keyboard.press('Escape');
  for (const cell of ['B2', 'C2']) await expect(sheet.cell(cell)).toHaveAttribute('data-fill', '#e9d8f0');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#f7d3c8');
  await expect(sheet.cell('C2')).toHaveAttribute('data-fill', '#fde5ac');
  // An action on one that is chosen is applied to all of them.
  await sheet.ruleMenu('Nitrate is above 5', 'Turn off');
  await expect(sheet.count('Oxygen is below 7')).toHaveText('off');
  await expect(sheet.count('Nitrate is above 5')).toHaveText('off');
  await expect(sheet.count('Oxygen is above 8')).toHaveText('1 of 60');
  await page.getByRole('button', { name: 'Undo' }).click();
  // What they paint and read is changed for all of them too.
  await sheet.legend.getByText('record', { exact: true }).click();
  await expect(sheet.cell('A2')).toHaveAttribute('data-fill', '#fde5ac');
  await sheet.legend.getByText('fields', { exact: true }).click();
  const painted = page.getByRole('dialog').filter({ has: page.getByRole('checkbox', { name: 'Station' }) });
  await expect(painted.getByRole('checkbox', { name: 'Oxygen' })).toBeChecked();
  await painted.getByRole('checkbox', { name: 'Oxygen' }).click();
  await expect(sheet.cell('B2')).not.toHaveAttribute('data-fill');
  await expect(sheet.cell('C2')).toHaveAttribute('data-fill', '#fde5ac');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  await sheet.legend.getByRole('button', { name: 'Deselect all' }).click();
  await expect(sheet.legend.getByRole('heading', { name: 'Legend' })).toBeVisible();

  // The widest rule comes first and settles: no other paints its record any more.
  await sheet.type('B3', '9');
  await sheet.type('C3', '6');
  await expect(sheet.cell('C3')).toHaveAttribute('data-rules', 'Oxygen is above 8|Nitrate is above 5');
  await sheet.ruleMenu('Oxygen is above 8', 'Stop later rules on its cells');
  await expect(sheet.cell('C3')).toHaveAttribute('data-rules', 'Oxygen is above 8');
});

test('rules read other cells instead, are carried to others, and filter to their records', async ({ page }) => {
  const sheet = await withRules(page);
  await sheet.cell('C2').click();
  await sheet.ruleMenu('Oxygen is below 7', 'Copy to the selected cells');
  await expect.poll(() => sheet.paintedBy('Nitrate is below 7', 'C', rows)).toEqual(['C3']);
  await expect.poll(() => sheet.paintedBy('Oxygen is below 7', 'B', rows)).toEqual(['B2', 'B4']);
  await sheet.cell('D2').click();
  await sheet.ruleMenu('Nitrate is below 7', 'Apply to the selected cells instead');
  await expect(sheet.count('Nitrate is below 7')).toHaveText('3 of 60');
  await expect(sheet.cell('C3')).not.toHaveAttribute('data-rules', /Nitrate is below 7/);
  await sheet.ruleMenu('Nitrate is above 5', 'Filter by this rule');
  await expect(sheet.cell('A2')).toBeVisible();
  await expect(sheet.cell('A3')).toHaveCount(0);
  await expect(sheet.cell('A4')).toBeVisible();
});

test('only the rules on the selection are shown, and removed; undo brings them back', async ({ page }) => {
  const sheet = await withRules(page);
  const entries = sheet.legend.getByRole('listitem');
  const menu = async (item: string) => {
    await sheet.legend.getByRole('button', { name: 'Actions for the legend' }).click();
    await page.getByRole('menuitem', { name: item, exact: true }).click();
  };
  await sheet.cell('C2').click();
  await menu('Show only rules on the selection');
  // The one that paints whole records reaches every field.
  await expect(entries).toHaveCount(2);
  await sheet.cell('A2').click();
  await expect(entries).toHaveCount(1);
  await sheet.cell('A1').click();
  await expect(entries).toHaveCount(0);
  await menu('Show all rules');
  await expect(entries).toHaveCount(3);
  await sheet.cell('A2').click();
  await menu('Delete the rules on the selection');
  await expect(entries).toHaveCount(2);
  await menu('Delete all rules');
  await expect(entries).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(entries).toHaveCount(2);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(entries).toHaveCount(3);
});

test('the keys work from the moment a sheet is open; help opens where one is, is searched, and works offline', async ({
  page,
  context,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  // It is fetched a moment after the sheet.
  await page.waitForTimeout(3000);
  await context.setOffline(true);
  await page.keyboard.press('F1');
  const help = page.getByRole('dialog', { name: 'Help' });
  const task = (name: string) => help.locator('details', { hasText: name }).first();
  await expect(task('Make a rule in words')).toHaveAttribute('open', '');
  const example = task('Make a rule in words').getByRole('table');
  await expect(example.getByRole('cell', { name: '4.6' })).toHaveCSS('background-color', 'rgb(247, 211, 200)');
  await help.getByLabel('Try it: change the words').first().fill('oxygen above 8 as clear');
  await expect(example.getByRole('cell', { name: '8.4' })).toHaveCSS('background-color', 'rgb(207, 232, 220)');
  await help.getByLabel('Search help').fill('overdue');
  await expect(task('Show what is due')).toHaveAttribute('open', '');
  await help.getByLabel('Search help').fill('shortcuts');
  await help.getByText('Keyboard shortcuts').click();
  await expect(help).toContainText('Make a rule over the selected fields');
  await context.setOffline(false);
  await page.keyboard.press('Escape');
  await expect(help).toHaveCount(0);
  await expect(sheet.grid).toBeFocused();
  await page.keyboard.press('Alt+r');
  await expect(page.getByRole('combobox', { name: 'Say it in words' })).toBeFocused();
});

test('a paste of very many cells can be stopped: the sheet is as it was, for others too', async ({ page, context }) => {
  const id = await makeSheet(page, ROWS);
  const sheet = await SheetPage.open(page, id);
  await sheet.cell('A2').click();
  await page.evaluate(() => {
    const clipboard = new DataTransfer();
    clipboard.setData(
      'text/plain',
      Array.from({ length: 25_000 }, (_, row) => Array.from({ length: 8 }, (__, field) => row * field).join('\t')).join(
        '\n',
      ),
    );
    document
      .querySelector('[role=grid]')!
      .dispatchEvent(new ClipboardEvent('paste', { clipboardData: clipboard, bubbles: true, cancelable: true }));
  });
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText('Stopped. The sheet is as it was.')).toBeVisible();
  await expect(sheet.cell('A2')).toHaveText('Alder Weir');
  await expect(sheet.grid).toHaveAttribute('aria-rowcount', '61');
  const other = await SheetPage.open(await context.newPage(), id);
  await expect(other.cell('B4')).toHaveText('6.4');
  await expect(other.grid).toHaveAttribute('aria-rowcount', '61');
});
