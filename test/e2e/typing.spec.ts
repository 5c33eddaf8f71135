import { OWNER_STATE } from './owner-state';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

const ROWS = [
  ['Station', 'Dissolved oxygen'],
  ['Alder Weir', '6.1'],
  ['Birch Ford', '5'],
  ['Cedar Sluice', ''],
  ['Elm Pool', 'sensor error'],
];

async function withLowOxygen(sheet: SheetPage) {
  await sheet.beginRule('B2', /^Compare with a value/);
  await sheet.bench.getByRole('textbox', { name: 'Threshold', exact: true }).fill('5');
  await sheet.bench.getByLabel('Name of the rule').fill('Low oxygen');
  await sheet.pickLook('Look', 'Alarm');
  await sheet.bench.getByRole('button', { name: 'Save rule' }).click();
  await expect(sheet.count('Low oxygen')).toHaveText('0 of 60');
  await sheet.isLive();
}

test('a value below the threshold takes the look at once; a header, a blank, a text and the threshold itself never do', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await withLowOxygen(sheet);

  await sheet.type('B2', '4.9');
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#f7d3c8');
  await expect(sheet.cell('B2')).toHaveAccessibleName('4.9, Low oxygen');
  await expect(sheet.count('Low oxygen')).toHaveText('1 of 60');
  for (const address of ['B1', 'B3', 'B4', 'B5']) await expect(sheet.cell(address)).not.toHaveAttribute('data-fill');

  // The trace shows both sides of the comparison.
  await sheet.cell('B3').click();
  await page.getByRole('button', { name: /^Why this cell looks so/ }).click();
  await expect(page.getByRole('list', { name: 'Trace' })).toContainText('Asked whether 5 is below 5');
  await page.keyboard.press('Escape');
  await sheet.cell('B5').click();
  await page.getByRole('button', { name: /^Why this cell looks so/ }).click();
  await expect(page.getByRole('list', { name: 'Trace' })).toContainText('a text against a number: not compared');
  await page.keyboard.press('Escape');

  // A record added at the end is covered at once.
  await sheet.leaveBench();
  await sheet.menu('Rows', 'Add record at the end');
  await expect(sheet.cell('A62')).toHaveAttribute('aria-selected', 'true');
  await sheet.type('B62', '2');
  await expect(sheet.cell('B62')).toHaveAttribute('data-fill', '#f7d3c8');
  await expect(sheet.count('Low oxygen')).toHaveText('2 of 61');

  // What is painted is what the mirror says: look at the canvas itself.
  const box = (await sheet.cell('B62').boundingBox())!;
  const pixel = await page.evaluate(
    ({ x, y }) => {
      const canvas = document.querySelector('canvas')!;
      const bounds = canvas.getBoundingClientRect();
      const copy = new OffscreenCanvas(canvas.width, canvas.height).getContext('2d')!;
      copy.drawImage(canvas, 0, 0);
      return Array.from(
        copy
          .getImageData((x - bounds.left) * devicePixelRatio, (y - bounds.top) * devicePixelRatio, 1, 1)
          .data.slice(0, 3),
      );
    },
    { x: box.x + 6, y: box.y + 6 },
  );
  expect(pixel).toEqual([0xf7, 0xd3, 0xc8]);
});

test('undo and redo, by key and by button', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.type('A2', 'Heron Island');
  await sheet.type('A3', 'Ivy Lock');
  await page.keyboard.press('Control+z');
  await expect(sheet.cell('A3')).toHaveText('Birch Ford');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.cell('A2')).toHaveText('Alder Weir');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await page.getByRole('button', { name: 'Redo' }).click();
  await sheet.grid.focus();
  await page.keyboard.press('Control+Shift+Z');
  await expect(sheet.cell('A2')).toHaveText('Heron Island');
  await expect(sheet.cell('A3')).toHaveText('Ivy Lock');
});

test('moving, selecting, editing and clearing by keyboard and mouse', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  const address = page.getByTestId('address');
  await sheet.cell('A2').click();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowDown');
  await expect(address).toHaveValue('B3');
  await page.keyboard.press('Tab');
  await expect(address).toHaveValue('C3');
  await page.keyboard.press('Home');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowRight');
  await expect(address).toHaveValue('A3:B4');
  await expect(sheet.cell('B4')).toHaveAttribute('aria-selected', 'true');
  await expect(sheet.grid).toHaveAttribute('aria-activedescendant', 'cell-0-2');

  // Escape gives back what was there; Enter in a cell edits it where it stands.
  await sheet.cell('A2').click();
  await page.keyboard.type('half');
  await page.keyboard.press('Escape');
  await expect(sheet.cell('A2')).toHaveText('Alder Weir');
  await page.keyboard.press('Enter');
  await page.keyboard.type(' (upper)');
  await page.keyboard.press('Tab');
  await expect(sheet.cell('A2')).toHaveText('Alder Weir (upper)');
  await expect(address).toHaveValue('B2');

  // A range by mouse, cleared as one step.
  await sheet.cell('A2').hover();
  await page.mouse.down();
  await sheet.cell('B5').hover();
  await page.mouse.up();
  await expect(address).toHaveValue('A2:B5');
  await page.keyboard.press('Delete');
  for (const cell of ['A2', 'B2', 'A5', 'B5']) await expect(sheet.cell(cell)).toHaveText('');
  await page.keyboard.press('Control+z');
  await expect(sheet.cell('B5')).toHaveText('sensor error');

  // Everything can be selected without scrolling away.
  await page.keyboard.press('Control+a');
  await expect(address).toHaveValue('A1:L61');
  await expect(sheet.cell('A2')).toBeInViewport();

  // The line above the grid edits the same cell.
  await sheet.cell('A4').click();
  const line = page.getByLabel('Content of the selected cell');
  await expect(line).toHaveValue('Cedar Sluice');
  await line.fill('Cedar');
  await line.press('Enter');
  await expect(sheet.cell('A4')).toHaveText('Cedar');
  await expect(sheet.grid).toBeFocused();
});

test('where decimals have a comma, a number typed or pasted with one is judged as the number it is', async ({
  browser,
}) => {
  const context = await browser.newContext({ storageState: OWNER_STATE, locale: 'de-DE' });
  const page = await context.newPage();
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await withLowOxygen(sheet);
  await sheet.type('B2', '4,9');
  await expect(sheet.cell('B2')).toHaveAccessibleName('4.9, Low oxygen');
  await sheet.cell('B3').click();
  await page.evaluate(() => {
    const data = new DataTransfer();
    data.setData('text/plain', '3,25\n6,5');
    document.activeElement?.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  });
  await expect(sheet.cell('B3')).toHaveAccessibleName('3.25, Low oxygen');
  await expect(sheet.cell('B4')).toHaveText('6.5');
  await context.close();
});
