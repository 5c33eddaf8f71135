import postgres from 'postgres';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

const ROWS = [
  ['Station', 'Oxygen'],
  ['Alder Weir', '4.2'],
  ['Birch Ford', '8.1'],
];

test('every change is listed, one cell’s own past too; the sheet is shown as it was, and a change is reverted', async ({
  page,
  context,
}) => {
  const id = await makeSheet(page, ROWS);
  const sheet = await SheetPage.open(page, id);
  await sheet.type('B2', '9');
  await sheet.cell('B2').click();
  await sheet.say('oxygen above 8.5 as plum');
  await sheet.leaveBench();
  await sheet.type('B2', '5');
  await sheet.type('A3', 'Birch Mill');
  await sheet.isLive();

  await page.getByRole('navigation', { name: 'Views of the sheet' }).getByRole('link', { name: 'History' }).click();
  const changes = page.getByRole('list', { name: 'Changes' }).getByRole('listitem');
  await expect(changes).toHaveCount(5);
  await expect(changes.nth(0)).toContainText('Station of Birch Mill: Birch Ford Birch Mill');
  await expect(changes.nth(1)).toContainText('Oxygen of Alder Weir: 9 5');
  await expect(changes.nth(2)).toContainText('rule “Oxygen is above 8.5” made');
  expect(await violations(page)).toEqual([]);

  // After the rule was made the cell was 9, and the rule painted it.
  const [then] = await Promise.all([
    context.waitForEvent('page'),
    changes.nth(2).getByRole('link', { name: 'View this version' }).click(),
  ]);
  await expect(then.getByText(/^As it was on/)).toBeVisible();
  await expect(then.getByRole('cell', { name: '9', exact: true })).toHaveCSS('background-color', 'rgb(233, 216, 240)');
  await expect(then.getByRole('cell', { name: 'Birch Ford' })).toBeVisible();
  // What is different now: the value, the look that went with it, and the name.
  await then.getByRole('button', { name: 'Show what is different now' }).click();
  const differences = then.getByRole('region', { name: 'Differences now' }).getByRole('row');
  await expect(differences).toHaveText([
    'RecordFieldThenNow',
    'Alder WeirOxygen9 (Oxygen is above 8.5)5Restore',
    'Birch MillStationBirch FordBirch MillRestore',
  ]);
  await then.getByRole('button', { name: 'Restore this version' }).click();
  await expect(then.getByText('Nothing is different now')).toBeVisible();
  await then.close();
  await page.reload();
  await expect(changes).toHaveCount(6);
  await expect(changes.nth(0)).toContainText('Station of Birch Ford: Birch Mill Birch Ford');
  // Even that is a change like any other.
  await changes.nth(0).getByRole('button', { name: 'Undo change' }).click();
  await expect(changes).toHaveCount(7);

  await changes.nth(3).getByRole('link', { name: 'Oxygen of Alder Weir' }).click();
  await expect(page.getByText('Only what was entered in Oxygen of Alder Weir')).toBeVisible();
  await expect(changes).toHaveCount(5);
  await page.getByRole('link', { name: 'Show all changes' }).click();
  await expect(changes).toHaveCount(7);

  await changes.nth(3).getByRole('button', { name: 'Undo change' }).click();
  await expect(changes).toHaveCount(8);
  await expect(changes.nth(0)).toContainText('Oxygen of Alder Weir: 5 9');
  await page.getByRole('link', { name: 'Sheet', exact: true }).click();
  await expect(sheet.cell('B2')).toHaveText('9');
  await expect(sheet.cell('B2')).toHaveAttribute('data-rules', 'Oxygen is above 8.5');

  // From a cell to its own past.
  await sheet.cell('A3').click();
  await page.getByRole('button', { name: /^Why/ }).first().click();
  await page.getByRole('link', { name: 'History of this cell' }).click();
  await expect(changes).toHaveCount(4);
});

test('two versions are compared, and one cell is brought back by itself', async ({ page }) => {
  const id = await makeSheet(page, [
    ['Station', 'Oxygen'],
    ['Alder Weir', '9'],
    ['Birch Ford', '8'],
  ]);
  const sheet = await SheetPage.open(page, id);
  await sheet.type('B2', '5');
  await sheet.type('B3', '4');
  await sheet.isLive();
  await page.goto(`/sheets/${id}/paper?at=1`);
  await page.getByLabel('Compare with the sheet after change').fill('2');
  await page.getByRole('button', { name: 'Show what is different after change 2' }).click();
  await expect(page.getByRole('region', { name: 'Differences after change 2' }).getByRole('row')).toHaveText([
    'RecordFieldThenAfter change 2',
    'Alder WeirOxygen95',
  ]);
  await page.getByRole('button', { name: 'Compare with another version' }).click();
  await page.getByLabel('Compare with the sheet after change').fill('');
  await page.getByRole('button', { name: 'Show what is different now' }).click();
  await page.getByRole('button', { name: 'Restore Oxygen of Alder Weir' }).click();
  await expect(page.getByRole('region', { name: 'Differences now' }).getByRole('row')).toHaveText([
    'RecordFieldThenNow',
    'Birch FordOxygen84Restore',
  ]);
  await SheetPage.open(page, id);
  expect(await sheet.texts('B', 2, 3)).toEqual([['9'], ['4']]);
});

test('a version is named, and a rule asks what has changed since', async ({ page }) => {
  const id = await makeSheet(page, ROWS);
  const sheet = await SheetPage.open(page, id);
  await sheet.type('B2', '9');
  await expect.poll(async () => (await page.request.get(`/api/sheets/${id}/history`)).text()).toContain('"sequence":2');
  await page.goto(`/sheets/${id}/history`);
  await page.getByRole('button', { name: 'Name the version after change 2' }).click();
  const name = page.getByRole('textbox', { name: 'Name' });
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText('Enter a name')).toBeVisible();
  await name.fill('Before the visit');
  await name.press('Enter');
  const changes = page.getByRole('list', { name: 'Changes' }).getByRole('listitem');
  await expect(changes.nth(0)).toContainText('version “Before the visit” named');
  await expect(changes.nth(1)).toContainText('Before the visit');

  await SheetPage.open(page, id);
  await sheet.type('B3', '8.4');
  await sheet.beginRule('B2', /^Changed recently/);
  await sheet.pick('Compared with', 'since Before the visit');
  await sheet.bench.getByLabel('Name of the rule').fill('Since then');
  await sheet.keepRule();
  // B2 was entered before that moment, B3 after it.
  await expect.poll(() => sheet.paintedBy('Since then', 'B', [2, 3])).toEqual(['B3']);
});

test('what cannot be listed or reverted is refused in plain words', async ({ request }) => {
  const history = '/api/sheets/station-readings/history';
  expect((await request.get(`${history}?before=soon`)).status()).toBe(400);
  expect((await request.get('/api/sheets/nowhere/history')).status()).toBe(404);
  expect((await request.get('/api/sheets/station-readings/packed?at=soon')).status()).toBe(400);
  const late = await request.get('/api/sheets/station-readings/packed?at=999999');
  expect(((await late.json()) as { refused: string }).refused).toContain('there is no change 999999 yet');
  const back = await request.post(`${history}/999999`, { data: { id: 'x' } });
  expect(`${back.status()} ${((await back.json()) as { refused: string }).refused}`).toBe(
    '400 There is no such change',
  );
});

test('where the server has removed old changes, the history says where it begins', async ({ page }) => {
  const id = await makeSheet(page, ROWS);
  const sheet = await SheetPage.open(page, id);
  await sheet.type('B2', '4.4');
  await sheet.type('B3', '8.3');
  const shortened = 'Earlier changes are not kept on this server.';
  const changes = page.getByRole('list', { name: 'Changes' }).getByRole('listitem');
  await page.goto(`/sheets/${id}/history`);
  const before = await changes.count();
  await expect(page.getByText(shortened)).toHaveCount(0);
  const sql = postgres(process.env.DATABASE_URL!, { max: 1 });
  await sql`delete from sheet_change where sheet_id = ${id} and sequence = 1`;
  await sql.end();
  await page.reload();
  await expect(changes).toHaveCount(before - 1);
  await expect(page.getByText(shortened)).toBeVisible();
  const gone = await page.request.get(`/api/sheets/${id}/packed?at=0`);
  expect(((await gone.json()) as { refused: string }).refused).toContain('The history of this sheet begins later');
});
