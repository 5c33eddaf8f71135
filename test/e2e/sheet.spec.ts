import type { Locator, Page } from '@playwright/test';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

const READINGS = [
  ['Station', 'Oxygen', 'Nitrate'],
  ['Alder Weir', '8.1', '2.5'],
  ['Birch Ford', '4.2', '7'],
  ['Cedar Sluice', '', '3.25'],
  ['Birch Ford', '6.4', '12'],
];

test('moving about: to the edge of the data, to an address, a label, and from one find to the next', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, READINGS));
  const address = page.getByTestId('address');
  await sheet.cell('A1').click();
  await page.keyboard.press('Control+ArrowDown');
  await expect(address).toHaveValue('A5');
  await page.keyboard.press('Control+Shift+ArrowRight');
  await expect(address).toHaveValue('A5:C5');
  await sheet.cell('B2').click();
  await page.keyboard.press('Control+ArrowDown');
  await expect(address).toHaveValue('B3');

  await sheet.goTo('c3:a2');
  await expect(address).toHaveValue('A2:C3');
  await sheet.goTo('nitrate');
  await expect(address).toHaveValue('C1:C61');
  await expect(page.getByTestId('status')).toContainText('Sum 24.75');
  await sheet.goTo('ZZ900');
  await expect(page.getByText('There is no cell, range, name or field “ZZ900”')).toBeVisible();

  await sheet.cell('A1').click();
  await page.keyboard.press('Control+f');
  const find = page.getByRole('search');
  await find.getByLabel('Find', { exact: true }).fill('birch');
  await find.getByRole('button', { name: 'Next' }).click();
  await expect(find.getByRole('status')).toHaveText('1 of 2 cells');
  await expect(address).toHaveValue('A3');
  await find.getByRole('button', { name: 'Next' }).click();
  await expect(address).toHaveValue('A5');
  await find.getByLabel('Replace with').fill('Elm');
  await find.getByRole('button', { name: 'Replace all' }).click();
  await expect(sheet.cell('A5')).toHaveText('Elm Ford');
  await find.getByLabel('Find', { exact: true }).fill('(');
  await find.getByLabel('Pattern').check();
  await find.getByRole('button', { name: 'Next' }).click();
  await expect(page.getByText('“(” cannot be read as a pattern.')).toBeVisible();
  await find.getByRole('button', { name: 'Close' }).click();
  await sheet.actions.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.cell('A5')).toHaveText('Birch Ford');
});

test('copying, cutting and pasting here and from other programs, and filling on', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, READINGS));
  // A formula moves along; its style comes with it; what is cut is gone.
  await sheet.type('D2', '=B2+$C$2');
  await sheet.cell('D2').click();
  await page.keyboard.press('Control+b');
  await page.keyboard.press('Control+c');
  await sheet.cell('D3').click();
  await page.keyboard.press('Control+v');
  await expect(sheet.cell('D3')).toHaveText('6.7');
  await expect(sheet.cell('D3')).toHaveAttribute('data-bold', 'true');
  await expect(sheet.line).toHaveValue('=B3+$C$2');
  // What was pasted can be pasted otherwise, and a style taken from one place to another.
  await page.getByRole('button', { name: 'values only' }).click();
  await expect(sheet.line).toHaveValue('10.6');
  await expect(sheet.cell('D3')).not.toHaveAttribute('data-bold');
  await page.getByRole('button', { name: 'looks only' }).click();
  await expect(sheet.line).toHaveValue('');
  await expect(sheet.cell('D3')).toHaveAttribute('data-bold', 'true');
  await page.getByRole('button', { name: 'all', exact: true }).click();
  await expect(sheet.line).toHaveValue('=B3+$C$2');
  await sheet.act('Style');
  await sheet.act('Copy style');
  await sheet.cell('A4').click();
  await sheet.act('Paste style');
  await expect(sheet.cell('A4')).toHaveAttribute('data-bold', 'true');
  await sheet.act('Style');

  await sheet.select('A2', 'B2');
  await page.keyboard.press('Control+x');
  await expect(sheet.cell('A2')).toHaveText('');
  await sheet.cell('F9').click();
  await page.keyboard.press('Control+v');
  await expect(sheet.cell('G9')).toHaveText('8.1');

  // A table from another program, and one that reaches beyond the sheet.
  const paste = (type: string, data: string) =>
    page.getByRole('grid').evaluate(
      (grid, [kind, text]) => {
        const clipboard = new DataTransfer();
        clipboard.setData(kind, text);
        grid.dispatchEvent(new ClipboardEvent('paste', { clipboardData: clipboard, bubbles: true, cancelable: true }));
      },
      [type, data] as const,
    );
  await sheet.cell('B12').click();
  await paste(
    'text/html',
    '<p>x</p><table><tr><td colspan="2">wide</td><td> 1,234 </td></tr><tr><td>a</td><td>b</td><td>5%</td></tr></table>',
  );
  await expect(sheet.cell('D13')).toHaveText('5%');
  expect(await sheet.texts('BCD', 12, 13)).toEqual([
    ['wide', '', '1,234'],
    ['a', 'b', '5%'],
  ]);
  await sheet.goTo('L61');
  await paste('text/plain', 'one\t"two ""quoted"""\nthree\tfour\n');
  await expect(page.getByTestId('address')).toHaveValue('L61:M62');
  await expect(sheet.cell('M61')).toHaveText('two "quoted"');
  await expect(sheet.actions.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await sheet.actions.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.cell('M61')).toHaveCount(0);

  // Series by the handle, a formula by the keys.
  await sheet.goTo('A2');
  await sheet.typeDown('F2', '3', '5');
  await sheet.select('F2', 'F3');
  await sheet.fillTo('F3', 'F6');
  await expect(sheet.cell('F6')).toHaveText('11');
  await sheet.type('E2', '=F2*2');
  await sheet.select('E2', 'E6');
  await page.keyboard.press('Alt+Shift+ArrowDown');
  await expect(sheet.cell('E6')).toHaveText('22');
});

test('rows and fields: inserted, moved, sized, hidden, duplicated, removed; rules and formulas follow; all of it can be taken back by name', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, READINGS));
  await sheet.typeAcross('D2', '=SUM(B2:B5)', "=AVERAGE('Nitrate')");
  await expect(sheet.cell('D2')).toHaveText('18.7');
  await sheet.cell('A3').click();
  await sheet.menu('Rows', 'Insert a row above');
  await expect(sheet.cell('A4')).toHaveText('Birch Ford');
  await sheet.type('B3', '1.3');
  await expect(sheet.cell('D2')).toHaveText('20');
  await sheet.cell('B6').click();
  await page.keyboard.press('Alt+ArrowUp');
  await page.keyboard.press('Alt+ArrowUp');
  await expect(sheet.cell('B4')).toHaveText('6.4');
  await expect(sheet.cell('D2')).toHaveText('20');

  // A new name for a label is the formula's as well.
  await sheet.type('C1', 'Nitrate as N');
  await sheet.cell('E2').click();
  await expect(sheet.line).toHaveValue("=AVERAGE('Nitrate as N')");

  await sheet.cell('B1').click();
  await sheet.menu('Fields', 'Insert a field on the left');
  await expect(sheet.cell('C2')).toHaveText('8.1');
  await sheet.cell('E2').click();
  await expect(sheet.line).toHaveValue('=SUM(C2:C6)');
  await page.keyboard.press('Alt+ArrowLeft');
  await expect(sheet.cell('D2')).toHaveText('20');

  // Two fields are sized together by the edge of one, and fitted by a double click on it.
  const width = async (address: string) => (await sheet.cell(address).boundingBox())!.width;
  const letters = (await sheet.cell('B1').boundingBox())!;
  await page.mouse.click(letters.x + 40, letters.y - 12);
  await page.keyboard.down('Shift');
  await page.mouse.click(letters.x + letters.width + 40, letters.y - 12);
  await page.keyboard.up('Shift');
  await page.mouse.move(letters.x + letters.width, letters.y - 12);
  await page.mouse.down();
  await page.mouse.move(letters.x + letters.width + 40, letters.y - 12, { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => width('B1')).toBe(160);
  await expect.poll(() => width('C1')).toBe(160);
  await page.mouse.dblclick(letters.x + 160, letters.y - 12);
  await expect.poll(() => width('C1')).toBeLessThan(110);
  await expect(sheet.actions.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await sheet.actions.getByRole('button', { name: 'Undo' }).hover();
  await expect(page.getByRole('tooltip', { name: 'Undo: width of 2 fields' })).toBeVisible();

  await sheet.cell('B1').click();
  await sheet.menu('Fields', /^Hide/);
  await expect(sheet.cell('B1')).toHaveCount(0);
  await sheet.menu('Fields', 'Show the hidden field');
  await expect(sheet.cell('B1')).toBeVisible();
  await sheet.cell('A2').click();
  await sheet.menu('Rows', 'Duplicate row 2');
  await expect(sheet.cell('A3')).toHaveText('Alder Weir');
  await sheet.menu('Rows', 'Delete row 2');
  await sheet.cell('C1').click();
  await sheet.menu('Fields', /^Delete/);
  await expect(sheet.cell('D2')).not.toHaveText('8.1');
  await expect(sheet.grid).toBeFocused();

  for (let step = 0; step < 14; step++) await page.keyboard.press('Control+z');
  await expect(sheet.cell('B2')).toHaveText('8.1');
  await expect(sheet.cell('D2')).toHaveText('18.7');
  await expect(sheet.cell('A3')).toHaveText('Birch Ford');
  await sheet.isLive();
  await page.reload();
  await expect(sheet.cell('D2')).toHaveText('18.7');
});

test('several ranges at once; rows and fields dragged by their heads; fields kept in view', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, READINGS));
  const status = page.getByTestId('status');
  await sheet.select('B2', 'B3');
  await sheet.cell('C5').click({ modifiers: ['Control'] });
  await expect(page.getByTestId('address')).toHaveValue('C5 B2:B3');
  await expect(status).toContainText('Sum 24.3');
  await page.keyboard.press('Control+b');
  for (const address of ['B2', 'B3', 'C5']) await expect(sheet.cell(address)).toHaveAttribute('data-bold', 'true');
  await expect(sheet.cell('C2')).not.toHaveAttribute('data-bold');
  await page.keyboard.press('Delete');
  await expect(sheet.cell('B3')).toHaveText('');
  await page.keyboard.press('Control+z');
  await expect(sheet.cell('C5')).toHaveText('12');
  await sheet.goTo('A2:A3 C2:C3');
  await expect(status).toContainText('Sum 9.5');

  // By the letters and numbers: the first press selects, the next one drags.
  const head = async (address: string, axis: 'letter' | 'number', share: number) => {
    const box = (await sheet.cell(address).boundingBox())!;
    return axis === 'letter'
      ? ([box.x + box.width * share, box.y - 12] as const)
      : ([box.x - 24, box.y + box.height * share] as const);
  };
  const dragHead = async (from: readonly [number, number], to: readonly [number, number]) => {
    await page.mouse.click(...from);
    await page.mouse.move(...from);
    await page.mouse.down();
    await page.mouse.move(...to, { steps: 5 });
    await page.mouse.up();
  };
  await dragHead(await head('C1', 'letter', 0.5), await head('A1', 'letter', 0.1));
  await expect(sheet.cell('A1')).toHaveText('Nitrate');
  await expect(page.getByTestId('address')).toHaveValue('A1:A61');
  await dragHead(
    [(await head('A2', 'number', 0.5))[0], (await head('A2', 'number', 0.5))[1]],
    await head('A5', 'number', 0.9).then(([x, y]) => [x, y] as const),
  );
  await expect(sheet.cell('B5')).toHaveText('Alder Weir');
  await expect(sheet.actions.getByRole('button', { name: 'Undo' })).toBeEnabled();

  await sheet.cell('B1').click();
  await sheet.menu('Fields', /^Freeze up to/);
  await page.keyboard.press('End');
  await expect(page.getByTestId('address')).not.toHaveValue('B1');
  await expect(sheet.cell('B5')).toBeVisible();
  const left = async (address: string) => (await sheet.cell(address).boundingBox())!.x;
  expect(await left('B1')).toBeLessThan(await left('L1'));
  await sheet.cell('B5').click();
  await expect(page.getByTestId('address')).toHaveValue('B5');
  await page.keyboard.type('Elm Pool');
  await page.keyboard.press('Enter');
  await expect(sheet.cell('B5')).toHaveText('Elm Pool');
});

test('records are put in order for everybody, and filtered for oneself; totals cover all of them', async ({
  page,
  context,
}) => {
  const id = await makeSheet(page, READINGS);
  const sheet = await SheetPage.open(page, id);
  const other = await SheetPage.open(await context.newPage(), id);
  await page.bringToFront();
  await sheet.cell('C1').click();
  await sheet.menu('Fields', 'Maximum');
  await sheet.actions.getByRole('button', { name: 'Sort and filter' }).click();
  await page.getByRole('button', { name: 'Descending' }).click();
  await page.keyboard.press('Escape');
  await expect(sheet.cell('C2')).toHaveText('12');
  await expect(other.cell('C2')).toHaveText('12');
  expect((await sheet.texts('C', 2, 5)).flat()).toEqual(['12', '7', '3.25', '2.5']);

  await sheet.cell('A1').click();
  await sheet.actions.getByRole('button', { name: 'Sort and filter' }).click();
  await page.getByLabel('Birch Ford (2)').uncheck();
  await page.keyboard.press('Escape');
  await expect(sheet.cell('A2')).toHaveCount(0);
  await expect(sheet.cell('A4')).toBeVisible();
  // The total stands under the last record.
  await expect(sheet.cell('C6')).toHaveText('12');
  await expect(other.cell('A2')).toBeVisible();
  // The arrows pass over what is out of view.
  await sheet.cell('A1').click();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByTestId('address')).toHaveValue('A4');
  await sheet.actions.getByRole('button', { name: 'Filtered' }).click();
  await page.getByLabel('Condition').selectOption('contains');
  await page.getByLabel('Value', { exact: true }).fill('ford');
  await page.getByRole('button', { name: 'Show', exact: true }).click();
  await expect(sheet.cell('A4')).toHaveCount(0);
  await expect(sheet.cell('A2')).toHaveText('Birch Ford');
  // By several: the station, then its oxygen.
  await page.getByRole('button', { name: 'Add another field' }).click();
  await page.getByRole('button', { name: 'Then by' }).click();
  await page.getByLabel('Order 2').getByText('Descending').click();
  await page.getByRole('button', { name: 'Sort', exact: true }).click();
  await page.getByRole('button', { name: 'Show all records' }).click();
  await page.keyboard.press('Escape');
  await expect(sheet.cell('A2')).toBeVisible();
  expect(await sheet.texts('AB', 2, 5)).toEqual([
    ['Alder Weir', '8.1'],
    ['Birch Ford', '6.4'],
    ['Birch Ford', '4.2'],
    ['Cedar Sluice', ''],
  ]);
});

/** A finger that is put down on one thing, moved to another, and lifted. */
async function dragByTouch(page: Page, from: Locator, to: Locator): Promise<void> {
  const browser = await page.context().newCDPSession(page);
  const [first, last] = [(await from.boundingBox())!, (await to.boundingBox())!].map(({ x, y, width, height }) => ({
    x: x + width / 2,
    y: y + height / 2,
  }));
  await browser.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [first!] });
  await browser.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [last!] });
  // A finger that is lifted in full motion flings, and the browser takes the next tap for the end of that.
  await page.waitForTimeout(100);
  await browser.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [{ ...last!, x: last!.x + 1 }] });
  await browser.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await browser.detach();
}

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true });

  test('a range by long press, a style, a row, an entry: all by touch', async ({ page }) => {
    const sheet = await SheetPage.open(page, await makeSheet(page, READINGS));
    await sheet.cell('A2').tap();
    // Playwright has no long press: this is what a browser makes of one.
    await sheet.cell('B3').evaluate((cell) => {
      const { x, y, width, height } = cell.getBoundingClientRect();
      const at = {
        clientX: x + width / 2,
        clientY: y + height / 2,
        bubbles: true,
        cancelable: true,
        pointerType: 'touch',
      };
      cell.dispatchEvent(new PointerEvent('contextmenu', at));
    });
    await expect(page.getByTestId('address')).toHaveValue('A2:B3');
    await dragByTouch(page, page.getByTestId('grip-end'), sheet.cell('B4'));
    await expect(page.getByTestId('address')).toHaveValue('A2:B4');
    await dragByTouch(page, page.getByTestId('grip-start'), sheet.cell('B3'));
    await expect(page.getByTestId('address')).toHaveValue('B3:B4');
    await dragByTouch(page, page.getByTestId('grip-start'), sheet.cell('A2'));
    await dragByTouch(page, page.getByTestId('grip-end'), sheet.cell('B3'));
    await expect(page.getByTestId('address')).toHaveValue('A2:B3');
    await sheet.actions.getByRole('button', { name: 'Bold' }).tap();
    await expect(sheet.cell('B3')).toHaveAttribute('data-bold', 'true');
    await sheet.actions.getByRole('button', { name: 'Rows' }).tap();
    await page.getByRole('menuitem', { name: 'Insert 2 rows above' }).tap();
    await expect(sheet.cell('A4')).toHaveText('Alder Weir');
    await sheet.cell('A2').tap();
    await sheet.line.tap();
    await sheet.line.fill('Elm Pool');
    await sheet.line.press('Enter');
    await expect(sheet.cell('A2')).toHaveText('Elm Pool');
    await sheet.actions.getByRole('button', { name: 'Undo' }).tap();
    await expect(sheet.cell('A2')).toHaveText('');
    expect(await violations(page)).toEqual([]);
  });
});

test('values to choose from, names for cells, rows beneath others that are folded away', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, READINGS));
  const editor = page.getByRole('combobox', { name: 'Cell content' });
  await sheet.cell('A2').click();
  await sheet.menu('Fields', 'Allowed values');
  await page.getByRole('button', { name: 'Use the existing values' }).click();
  await expect(page.getByLabel(/^Allowed values of/)).toHaveValue(/Alder Weir/);
  await page.getByRole('button', { name: 'Save list' }).click();
  await sheet.cell('A2').click();
  await page.keyboard.press('Enter');
  await page.getByRole('option', { name: 'Cedar Sluice' }).click();
  await expect(sheet.cell('A2')).toHaveText('Cedar Sluice');
  await page.keyboard.type('bir');
  await expect(page.getByRole('option', { name: 'Birch Ford' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(sheet.cell('A3')).toHaveText('Birch Ford');
  await page.keyboard.type('Elm Pool');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“Elm Pool” is not one of the values of Station')).toBeVisible();
  await expect(editor).toHaveValue('Elm Pool');
  await page.keyboard.press('Escape');
  await expect(sheet.cell('A4')).toHaveText('Cedar Sluice');

  await sheet.select('B2', 'B5');
  await sheet.act('Names of cells');
  await page.getByLabel('Name the selected cells').fill('B2');
  await page.getByRole('button', { name: 'Name', exact: true }).click();
  await expect(page.getByText('“B2” is the address of a cell')).toBeVisible();
  await page.getByLabel('Name the selected cells').fill('Oxygens');
  await page.getByRole('button', { name: 'Name', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Remove the name Oxygens' })).toBeVisible();
  await page.keyboard.press('Escape');
  await sheet.type('D2', '=SUM(Oxygens)');
  await expect(sheet.cell('D2')).toHaveText('18.7');
  await sheet.goTo('oxygens');
  await expect(page.getByTestId('address')).toHaveValue('B2:B5');

  await sheet.select('A3', 'A4');
  await sheet.menu('Rows', /^Indent/);
  const row = (await sheet.cell('A2').boundingBox())!;
  await page.mouse.click(row.x - 44, row.y + row.height / 2);
  await expect(sheet.cell('A3')).toHaveCount(0);
  await expect(sheet.cell('A5')).toHaveText('Birch Ford');
  await sheet.cell('A2').click();
  await sheet.menu('Rows', /^Unfold/);
  await expect(sheet.cell('A3')).toBeVisible();
});
