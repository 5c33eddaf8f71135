import { OWNER_STATE } from './owner-state';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

const ROWS = [
  ['Station', 'Oxygen'],
  ['Alder Weir', '6.1'],
  ['Birch Ford', '4.9'],
];

test('the menu of a cell copies, pastes, cuts, and goes to its history', async ({ page }) => {
  await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  const items = page.getByRole('menu', { name: 'Selected cells' });
  const choose = async (address: string, item: string | RegExp) => {
    await sheet.cell(address).click({ button: 'right' });
    await items.getByRole('menuitem', { name: item }).click();
    await expect(items).toHaveCount(0);
  };
  await choose('A2', /^Copy/);
  await choose('A4', /^Paste Ctrl/);
  await expect(sheet.cell('A4')).toHaveText('Alder Weir');
  await choose('B2', /^Cut/);
  await expect(sheet.cell('B2')).toHaveText('');
  // A menu within a selection is about all of it.
  await sheet.cell('B3').click();
  await sheet.cell('B4').click({ modifiers: ['Shift'] });
  await choose('B3', /^Paste values only/);
  for (const address of ['B3', 'B4']) await expect(sheet.cell(address)).toHaveText('6.1');

  // The keyboard has it beneath the active cell.
  await sheet.cell('A3').click();
  await page.keyboard.press('Shift+F10');
  await expect(items.getByRole('menuitem', { name: /^Cut/ })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('grid')).toBeFocused();

  // What the clipboard has from elsewhere comes as a table.
  await page.evaluate(() => navigator.clipboard.writeText('Cedar Sluice\t7.5'));
  await sheet.cell('A5').click();
  await sheet.menu('Edit', /^Paste Ctrl/);
  await expect(sheet.cell('B5')).toHaveText('7.5');

  await choose('A5', 'History of this cell');
  await page.waitForURL('**/history?*');
  await expect(page.getByText('2 cells entered')).toBeVisible();
});

test('where the clipboard may not be read, the menu says which keys paste', async ({ browser }) => {
  const context = await browser.newContext({ storageState: OWNER_STATE });
  const page = await context.newPage();
  // As in a page that did not come by a secure connection.
  await page.addInitScript(() => Object.defineProperty(navigator, 'clipboard', { value: undefined }));
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.cell('A2').click();
  await sheet.menu('Edit', /^Paste Ctrl/);
  await expect(page.getByText('Press Ctrl+V to paste')).toBeVisible();
  await context.close();
});
