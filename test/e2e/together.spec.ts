import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

const STATIONS = ['Alder', 'Birch', 'Cedar', 'Dipper', 'Elm', 'Fold'];
const ROWS = [['Station', 'Oxygen', 'Note'], ...STATIONS.map((station, at) => [station, String(9 - at), ''])];

test('two people insert, remove, sort and type at once: both end with the same sheet, and every entry is in its record', async ({
  page,
  browser,
}) => {
  const id = await makeSheet(page, ROWS);
  const one = await SheetPage.open(page, id);
  const context = await browser.newContext();
  const two = await SheetPage.open(await context.newPage(), id);

  // One notes each station's name beside it, wherever it stands then; the other moves everything about meanwhile.
  const noting = async () => {
    for (const station of STATIONS) {
      await one.grid.getByText(station, { exact: true }).click();
      // Whichever it was when the click came: the line shows the selection, and the selection stays with it.
      await expect(one.line).toHaveValue(/^[A-Z]/);
      const selected = await one.line.inputValue();
      await page.keyboard.press('ArrowRight');
      await page.keyboard.press('ArrowRight');
      await page.keyboard.type(`at ${selected}`, { delay: 30 });
      await page.keyboard.press('Enter');
      await expect(one.line).not.toHaveValue(/^[A-Z]/);
    }
  };
  const moving = async () => {
    for (let round = 0; round < 2; round++) {
      await two.cell('A2').click();
      await two.menu('Rows', 'Insert a row above');
      await two.cell('B1').click();
      await two.actions.getByRole('button', { name: 'Sort and filter' }).click();
      await two.page.getByRole('button', { name: round ? 'Descending' : 'Ascending' }).click();
      await two.page.keyboard.press('Escape');
      await two.type('B2', '7.5');
      await two.cell('A9').click();
      await two.menu('Rows', 'Delete row 9');
    }
  };
  await Promise.all([noting(), moving()]);
  await one.isLive();
  await two.isLive();
  await expect
    .poll(async () => JSON.stringify(await one.texts('ABC', 1, 10)))
    .toBe(JSON.stringify(await two.texts('ABC', 1, 10)));
  const noted = (await one.texts('AC', 2, 12)).filter(([, note]) => note !== '');
  expect(noted.length).toBeGreaterThan(3);
  for (const [station, note] of noted) expect(note).toBe(`at ${station}`);
  // Rows that move under the selection do not change the text of the address box while it is being edited.
  await one.cell('A3').click();
  await page.getByTestId('address').click();
  const third = await one.cell('A3').textContent();
  await two.cell('A2').click();
  await two.menu('Rows', 'Insert a row above');
  await expect(one.cell('A4')).toHaveText(third!);
  await page.keyboard.type('C5');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('address')).toHaveValue('C5');
  await expect(one.cell('C5')).toHaveAttribute('aria-selected', 'true');
  await page.reload();
  await one.isLive();
  expect(await one.texts('ABC', 1, 10)).toEqual(await two.texts('ABC', 1, 10));
  await context.close();
});
