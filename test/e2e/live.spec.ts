import { comeBy, makeLink } from './people-page';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

const ROWS = [
  ['Station', 'Oxygen'],
  ['Alder', '9'],
  ['Birch', '8'],
];

test('others in the sheet are shown with their selection, and gone when they leave; fillers do not see others', async ({
  page,
  browser,
}) => {
  const id = await makeSheet(page, ROWS);
  const owner = await SheetPage.open(page, id);
  const filling = {
    id: 'filling',
    kind: 'filling',
    open: ['f2'],
    openCells: [],
    kept: [],
    outcomes: 'leaving',
    showsOthers: true,
  };
  await page.request.post(`/api/sheets/${id}/changes`, {
    data: { id: 'open', operations: [{ kind: 'put-parts', parts: [filling] }] },
  });
  const editor = await comeBy(
    browser,
    (await makeLink(page.request, id, { role: 'editor', name: 'Colleague' })).path,
    'Perrin Vale',
  );
  const filler = await comeBy(
    browser,
    (await makeLink(page.request, id, { role: 'filler', name: 'Class' })).path,
    'Tamsin Reed',
  );
  const here = (sheet: SheetPage) => sheet.page.getByRole('list', { name: 'People here now' });

  await editor.sheet.cell('B3').click();
  await filler.sheet.cell('B2').click();
  await expect(here(owner).getByRole('button', { name: 'Perrin Vale, editor, at B3' })).toBeVisible();
  await expect(here(owner).getByRole('button', { name: 'Tamsin Reed, filler, at B2' })).toBeVisible();
  await expect(here(editor.sheet).getByRole('button', { name: /Mara Quillfeather, owner/ })).toBeVisible();
  await expect(here(filler.sheet)).toHaveCount(0);
  // Their cell moves with the rows, and a press goes there.
  await owner.cell('A2').click();
  await owner.menu('Rows', 'Insert a row above');
  await here(owner).getByRole('button', { name: 'Perrin Vale, editor, at B4' }).click();
  await expect(page.getByTestId('address')).toHaveValue('B4');

  await filler.context.close();
  await expect(here(owner).getByRole('button', { name: /Tamsin Reed/ })).toHaveCount(0);
  await editor.context.close();
  await expect(here(owner)).toHaveCount(0);
});

test('two people in one cell: the last entry stands, and whoever lost theirs gets a message and can bring it back', async ({
  page,
  browser,
}) => {
  const id = await makeSheet(page, ROWS);
  const one = await SheetPage.open(page, id);
  const two = await comeBy(
    browser,
    (await makeLink(page.request, id, { role: 'editor', name: 'Colleague' })).path,
    'Perrin Vale',
  );
  // The second types while what the first entered cannot reach them.
  await two.page.route('**/changes**', (route) => route.abort());
  await two.page.reload();
  await expect(two.page.getByTestId('link')).toHaveAccessibleName(/^Offline/);
  await two.sheet.type('B2', '7.5');
  await one.type('B2', '6.5');
  await one.isLive();
  await two.page.unroute('**/changes**');
  await two.sheet.isLive();
  await expect(one.cell('B2')).toHaveText('7.5');
  const told = page
    .getByRole('alert')
    .filter({ hasText: 'Perrin Vale entered “7.5” in B2 at the same time as you entered “6.5”' });
  await expect(told).toBeVisible();
  await expect(two.page.getByRole('button', { name: 'Restore mine' })).toHaveCount(0);
  await told.getByRole('button', { name: 'Restore mine' }).click();
  for (const sheet of [one, two.sheet]) await expect(sheet.cell('B2')).toHaveText('6.5');
  await expect(told).toHaveCount(0);

  // Who writes over what they have seen takes nothing from anybody.
  await two.sheet.type('B2', '5');
  await expect(one.cell('B2')).toHaveText('5');
  await expect(page.getByRole('alert').filter({ hasText: 'Restore mine' })).toHaveCount(0);
  await two.context.close();
});

test('a server that has too much to do says so, and what waits is saved once it takes it', async ({ page }) => {
  const one = await SheetPage.open(page, await makeSheet(page, ROWS));
  const changes = '**/api/sheets/*/changes';
  await page.route(changes, (route) =>
    route.request().method() === 'POST'
      ? route.fulfill({ status: 503, headers: { 'retry-after': '1' }, json: { refused: 'Later.' } })
      : route.continue(),
  );
  await one.typeDown('B2', 'one', 'two');
  await expect(page.getByTestId('link')).toHaveAccessibleName('Server busy: 2 changes wait here and will be saved');
  await page.unroute(changes);
  await one.isLive();
  await page.reload();
  await expect(one.cell('B3')).toHaveText('two');
});

test('what is entered offline outlives the page, and is merged once the server is back', async ({ page, browser }) => {
  const id = await makeSheet(page, ROWS);
  const one = await SheetPage.open(page, id);
  const stop = async () => page.route('**/api/sheets/*/changes', (route) => route.abort());
  await stop();
  await one.typeDown('B2', 'entered', 'without', 'the server');
  await expect(page.getByTestId('link')).toHaveAccessibleName('Offline: 3 changes wait here');
  await page.reload();
  await expect(one.cell('B4')).toHaveText('the server');
  await expect(page.getByTestId('link')).toHaveAccessibleName('Offline: 3 changes wait here');

  // Meanwhile somebody else works on.
  const context = await browser.newContext();
  const two = await SheetPage.open(await context.newPage(), id);
  await two.type('A2', 'Ash');
  await two.menu('Rows', 'Insert a row above');
  await two.isLive();
  await page.unroute('**/api/sheets/*/changes');
  await one.isLive();
  for (const sheet of [one, two])
    await expect
      .poll(() => sheet.texts('AB', 2, 5))
      .toEqual([
        ['Ash', 'entered'],
        ['', ''],
        ['Birch', 'without'],
        ['', 'the server'],
      ]);
  // Nothing is sent twice, and nothing waits any more.
  await page.reload();
  await one.isLive();
  const history = (await (await page.request.get(`/api/sheets/${id}/history`)).json()) as { says: string[] }[];
  expect(
    history.filter(({ says }) => says.join().includes('entered in B') || says.join().includes('cell')),
  ).toHaveLength(history.length - 1);
  expect(history).toHaveLength(6);
  await context.close();
});
