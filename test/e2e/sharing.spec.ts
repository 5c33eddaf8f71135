import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { comeBy, joinIn, makeLink, signUp } from './people-page';
import { NOBODY } from './owner-state';
import { recordingProxy } from './recording-proxy';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';
import { packedRows } from '../support/packed-rows';

const CLUES = [
  ['Clue', 'Alder', 'Birch', 'Loosestrife', 'Secret'],
  ['Two tails', '', '', 'stonefly | stone fly', 'kept at Quillwort'],
  ['Three tails', '', '', 'mayflower nymph', 'kept at Marshwort'],
  ['Builds a house', '', '', 'cased caddis', 'kept at Spearwort'],
];
/** What a filler must never be sent: the key's texts, hidden fields, and anything of the rule. */
const NEVER = [
  'stonefly',
  'stone fly',
  'mayflower',
  'cased',
  'caddis',
  'Bladderwort',
  'Quillwort',
  'Marshwort',
  'Spearwort',
  'Judged in secret',
  'judged-rule',
  'Loosestrife',
  '"f4"',
  '"f5"',
];

const key = {
  id: 'judged-rule',
  key: 'a0',
  rule: {
    id: 'judged-rule',
    name: 'Judged in secret',
    on: true,
    settles: false,
    reads: { fields: ['f2', 'f3'] },
    when: {
      kind: 'key',
      expect: { field: 'f4' },
      near: 1,
      looks: { right: { look: 'clear' }, near: { look: 'watch' }, wrong: { look: 'alarm' }, empty: { look: 'quiet' } },
    },
    paints: 'cell',
  },
};
const filling = {
  id: 'filling',
  kind: 'filling',
  open: ['f2', 'f3'],
  openCells: [],
  kept: ['f5'],
  outcomes: 'leaving',
  showsOthers: false,
};

let changes = 0;
async function change(page: Page, sheet: string, ...operations: object[]): Promise<void> {
  const answer = await page.request.post(`/api/sheets/${sheet}/changes`, {
    data: { id: `sharing-${Date.now()}-${++changes}`, operations },
  });
  expect(await answer.text()).toContain('sequence');
}

async function quiz(page: Page): Promise<string> {
  const sheet = await makeSheet(page, CLUES);
  await change(page, sheet, { kind: 'put-rules', rules: [key] }, { kind: 'put-parts', parts: [filling] });
  return sheet;
}

test('owner, filler and viewer at once: answers turn right, nearly, wrong and empty live, and the filler is sent neither key nor rule', async ({
  page,
  browser,
}) => {
  const sheet = await quiz(page);
  const owner = await SheetPage.open(page, sheet);
  const link = await makeLink(page.request, sheet, {
    role: 'filler',
    name: 'Alder',
    gives: { kind: 'fields', fields: ['f2'] },
  });
  const reading = await makeLink(page.request, sheet, { role: 'viewer', name: 'Parents' });

  const proxy = await recordingProxy(new URL(page.url()).origin);
  const context = await browser.newContext({ storageState: NOBODY, baseURL: proxy.address });
  const fillerPage = await context.newPage();
  const filler = await joinIn(fillerPage, link.path, 'Group Alder');
  const viewer = await comeBy(browser, reading.path, 'A parent');

  // The filler has the clue and their own field, and nothing else.
  expect(await filler.texts('ABCDE', 1, 2)).toEqual([
    ['Clue', 'Alder', '', '', ''],
    ['Two tails', '', '', '', ''],
  ]);
  await expect(filler.legend).toHaveCount(0);

  await filler.typeDown('B2', 'Stonefly', 'mayflower nimph', 'dragon');
  for (const [at, judged] of [
    ['B2', 'right'],
    ['B3', 'nearly right'],
    ['B4', 'wrong'],
  ] as const) {
    await expect(filler.cell(at)).toHaveAttribute('data-rules', judged);
    await expect(owner.cell(at)).toHaveAttribute('data-rules', 'Judged in secret');
    await expect(viewer.sheet.cell(at)).toHaveAttribute('data-rules', 'Judged in secret');
    // All three see the same colour.
    await expect(owner.cell(at)).toHaveAttribute('data-fill', /^#/);
    const fill = await owner.cell(at).getAttribute('data-fill');
    await expect(filler.cell(at)).toHaveAttribute('data-fill', fill!);
    await expect(viewer.sheet.cell(at)).toHaveAttribute('data-fill', fill!);
  }
  // While another answer is typed, the outcome of the last one is not shown.
  await filler.cell('B4').click();
  await expect(fillerPage.getByText('Wrong', { exact: true })).toBeVisible();
  await fillerPage.keyboard.type('m');
  await expect(fillerPage.getByText('Wrong', { exact: true })).toHaveCount(0);
  await fillerPage.keyboard.press('Escape');
  await filler.cell('B2').click();
  await fillerPage.keyboard.press('Delete');
  await expect(filler.cell('B2')).toHaveAttribute('data-rules', 'not yet answered');
  await expect(owner.cell('B2')).toHaveText('');

  // The viewer has every answer and the legend, but not the key.
  await expect(viewer.page.getByRole('navigation', { name: 'Legend' })).toContainText('Judged in secret');
  expect(await viewer.sheet.texts('ABCD', 1, 1)).toEqual([['Clue', 'Alder', 'Birch', 'Secret']]);
  await viewer.sheet.cell('B3').click();
  await viewer.page.keyboard.type('mine');
  await expect(viewer.page.getByText('You are here to read')).toBeVisible();
  await expect(viewer.sheet.cell('B3')).toHaveText('mayflower nimph');

  // They take out what they see, and nothing else.
  await viewer.page.getByRole('button', { name: 'Files' }).click();
  await expect(viewer.page.getByRole('radio', { name: /CSV|Archive|Workbook|Rules/ })).toHaveCount(1);
  await expect(viewer.page.getByRole('radio', { name: /typed/ })).toHaveCount(0);
  const download = viewer.page.waitForEvent('download');
  await viewer.page.getByRole('button', { name: 'Export' }).click();
  const taken = readFileSync(await (await download).path(), 'utf8').split('\r\n');
  expect(taken.slice(0, 3)).toEqual([
    'Clue,Alder,Birch,Secret',
    'Two tails,,,kept at Quillwort',
    'Three tails,mayflower nimph,,kept at Marshwort',
  ]);
  await viewer.page.keyboard.press('Escape');

  // Another group's answer, the key changed, a cell of the key entered again: none of it goes to this filler.
  await owner.type('C2', 'a caddis larva');
  await owner.type('D4', 'dragon | Bladderwort');
  await expect(filler.cell('B4')).toHaveAttribute('data-rules', 'right');
  await expect(viewer.sheet.cell('C2')).toHaveText('a caddis larva');

  const everything = proxy.heard();
  for (const word of ['Two tails', '"nearly right"', 'event: repaint'])
    expect(everything.includes(word), word).toBe(true);
  const typed = everything.replaceAll(/Stonefly|mayflower nimph/g, '');
  for (const word of NEVER) expect(typed.includes(word), word).toBe(false);
  await context.close();
  await viewer.context.close();
  proxy.close();
});

test('outcomes come while one types, on leaving the cell, or not yet; then the server says nothing at all of them', async ({
  page,
  browser,
}) => {
  const sheet = await quiz(page);
  const link = await makeLink(page.request, sheet, { role: 'filler', name: 'All' });
  const { context, page: own, sheet: filler } = await comeBy(browser, link.path, 'Ash');
  await change(page, sheet, { kind: 'put-parts', parts: [{ ...filling, outcomes: 'typing' }] });
  await filler.cell('B2').click();
  const editor = own.getByLabel('Cell content');
  await expect(async () => {
    await own.keyboard.press('Escape');
    await own.keyboard.type('stonefl');
    await expect(editor).toHaveAttribute('data-says', 'nearly right', { timeout: 1500 });
  }).toPass();
  await own.keyboard.type('y');
  await expect(editor).toHaveAttribute('data-says', 'right');
  await own.keyboard.press('Escape');

  await change(page, sheet, { kind: 'put-parts', parts: [{ ...filling, outcomes: 'withheld' }] });
  await filler.type('B2', 'stonefly');
  await filler.type('B3', 'nothing like it');
  await filler.isLive();
  for (const at of ['B2', 'B3', 'B4']) await expect(filler.cell(at)).not.toHaveAttribute('data-rules');
  const judged = await own.request.post(`/api/sheets/${sheet}/painted/judge`, {
    data: { row: 'any', field: 'f2', input: 'stonefly' },
  });
  expect([judged.status(), await judged.json()]).toEqual([
    403,
    { refused: 'Answers are not checked while typing on this sheet.' },
  ]);

  await change(page, sheet, { kind: 'put-parts', parts: [filling] });
  await expect(filler.cell('B2')).toHaveAttribute('data-rules', 'right');
  await expect(filler.cell('B3')).toHaveAttribute('data-rules', 'wrong');
  await context.close();
});

test('on a phone a filler answers record by record, and reads in words how each answer was judged', async ({
  page,
  browser,
}) => {
  const sheet = await quiz(page);
  await change(page, sheet, {
    kind: 'put-fields',
    fields: [{ id: 'f3', key: 'a2', widthPx: 120, format: null, unit: null, allowed: ['mayfly', 'caddis'] }],
  });
  const link = await makeLink(page.request, sheet, { role: 'filler', name: 'All' });
  const context = await browser.newContext({
    storageState: NOBODY,
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  });
  const phone = await context.newPage();
  await phone.goto(link.path);
  await phone.getByLabel('Your name').fill('Hazel');
  await phone.getByRole('button', { name: 'Open the sheet' }).tap();
  // Three questions, and not the blank rows beneath them.
  const record = (name: string) => phone.getByRole('region', { name });
  await expect(phone.getByRole('region')).toHaveCount(3);
  const answer = record('Two tails').getByRole('textbox', { name: 'Alder' });
  await answer.tap();
  await phone.keyboard.insertText('stonefly');
  await phone.keyboard.press('Enter');
  await expect(answer).toHaveAccessibleDescription('right');
  // Enter goes on; of a list one chooses.
  await expect(record('Two tails').getByRole('combobox', { name: 'Birch' })).toBeFocused();
  await record('Three tails').getByRole('combobox', { name: 'Birch' }).selectOption('caddis');
  await expect(record('Three tails').getByText('wrong', { exact: true })).toBeVisible();
  expect(await violations(phone)).toEqual([]);
  await phone.getByRole('button', { name: 'Show the sheet' }).tap();
  await expect(phone.locator('[data-address="C3"]')).toHaveText('caddis');
  // Where nothing is open, there is no list to fill in.
  await change(page, sheet, { kind: 'remove-parts', parts: ['filling'] });
  await phone.reload();
  await expect(phone.locator('[data-address="C3"]')).toHaveText('caddis');
  await expect(phone.getByRole('button', { name: 'Show as a list' })).toBeVisible();
  await context.close();
});

test('everything but one’s own open cells is locked, with a plain reason, and the server keeps to it', async ({
  page,
  browser,
}) => {
  const sheet = await quiz(page);
  const link = await makeLink(page.request, sheet, { role: 'filler', name: 'Each', gives: { kind: 'next-field' } });
  const one = await comeBy(browser, link.path, 'First');
  const two = await comeBy(browser, link.path, 'Second');
  // Each who comes gets the next open field; then there is none left.
  expect(await one.sheet.texts('AB', 1, 1)).toEqual([['Clue', 'Alder']]);
  expect(await two.sheet.texts('AB', 1, 1)).toEqual([['Clue', 'Birch']]);
  const third = await browser.newContext({ storageState: NOBODY });
  const late = await third.newPage();
  await late.goto(link.path);
  await late.getByLabel('Your name').fill('Third');
  await late.getByRole('button', { name: 'Open the sheet' }).click();
  await expect(late.getByRole('alert').filter({ hasText: 'All places on this sheet are taken' })).toBeVisible();

  await one.sheet.cell('A2').click();
  await one.page.keyboard.type('x');
  await expect(one.page.getByText('This cell is not open for filling in')).toBeVisible();
  await one.sheet.type('B2', '=A2');
  await expect(one.page.getByText('Formulas cannot be entered here')).toBeVisible();
  await expect(one.sheet.cell('B2')).toHaveText('');

  const rows = await rowIds(page, sheet);
  const tried = async (operations: object[]) => {
    const answer = await one.page.request.post(`/api/sheets/${sheet}/changes`, {
      data: { id: `tried-${++changes}`, operations },
    });
    return [answer.status(), ((await answer.json()) as { refused?: string }).refused];
  };
  const cell = (row: string, field: string, input = 'x') => [{ kind: 'set-cells', cells: [{ row, field, input }] }];
  expect(await tried(cell(rows[1]!, 'f2', 'fair'))).toEqual([200, undefined]);
  const locked = [403, 'This cell is not open for filling in. The open ones are marked with a line at their left.'];
  for (const field of ['f1', 'f4', 'f5', 'f99']) expect(await tried(cell(rows[1]!, field))).toEqual(locked);
  // The header of an open field and a missing record give the same answer.
  expect(await tried(cell(rows[0]!, 'f2'))).toEqual(locked);
  expect(await tried(cell('gone', 'f2'))).toEqual(locked);
  expect(await tried(cell(rows[1]!, 'f3'))).toEqual([
    403,
    'This cell is for somebody else to fill in. Yours are marked with a line at their left.',
  ]);
  expect(await tried(cell(rows[1]!, 'f2', '=D2'))).toEqual([
    403,
    'Formulas cannot be entered here. Put an apostrophe before the = if it is meant as text.',
  ]);
  const only = [403, 'Only values can be entered here; everything else is for its owner and editors.'];
  for (const operations of [
    [{ kind: 'remove-rows', rows: [rows[1]] }],
    [{ kind: 'put-parts', parts: [{ ...filling, kept: [] }] }],
    [{ kind: 'remove-rules', rules: ['judged-rule'] }],
    [...cell(rows[1]!, 'f2'), { kind: 'remove-fields', fields: ['f1'] }],
  ])
    expect(await tried(operations)).toEqual(only);
  for (const { context } of [one, two, { context: third }]) await context.close();
});

test('the owner shares from the panel; somebody invited signs up and edits; a link that is taken back lets nobody in any more', async ({
  page,
  browser,
}) => {
  const sheet = await quiz(page);
  await SheetPage.open(page, sheet);
  await page.getByRole('button', { name: 'Share' }).click();
  await page.getByLabel('Invite a person').fill('not an address');
  await page.getByRole('button', { name: 'Invite', exact: true }).click();
  await expect(page.getByText('Write an e-mail address')).toBeVisible();
  const perrin = `perrin.${Date.now()}@example.org`;
  await page.getByLabel('Invite a person').fill(perrin);
  await page.getByRole('button', { name: 'Invite', exact: true }).click();
  const invitation = await page.getByRole('region', { name: 'New links' }).locator('code').textContent();

  const context = await browser.newContext({ storageState: NOBODY });
  const guest = await context.newPage();
  await guest.goto(new URL(invitation!).pathname);
  await expect(guest).toHaveURL(/sign-in/);
  await guest.getByRole('button', { name: 'Create account' }).click();
  await guest.getByLabel('E-mail').fill(perrin);
  await guest.getByLabel('Your name').fill('Perrin Vale');
  await guest.getByLabel('Password').first().fill('short');
  await guest.getByRole('button', { name: 'Create account' }).click();
  await expect(guest.getByRole('alert').filter({ hasText: 'at least 10 characters' })).toBeVisible();
  await guest.getByLabel('Password').first().fill('long enough now');
  await guest.getByRole('button', { name: 'Create account' }).click();
  // Until the page is live.
  await expect(async () => {
    // The page may be on its way already.
    if (!guest.url().includes('/sheets/'))
      await guest.getByRole('button', { name: 'Open the sheet' }).click({ timeout: 1000 });
    await guest.waitForURL('**/sheets/*', { timeout: 4000 });
  }).toPass();
  const editor = new SheetPage(guest);
  await editor.isLive();
  await expect(editor.entry('Judged in secret')).toBeVisible();
  await editor.type('B2', 'stonefly');
  await expect(editor.cell('B2')).toHaveAttribute('data-rules', 'Judged in secret');
  // What only the owner does is not offered, and not taken.
  await expect(guest.getByRole('button', { name: 'Share' })).toHaveCount(0);
  const tried = await context.request.post(`/api/sheets/${sheet}/changes`, {
    data: { id: 'editor-filling', operations: [{ kind: 'put-parts', parts: [filling] }] },
  });
  expect(tried.status()).toBe(403);
  // It works once.
  await signUp(context.request, 'Another');
  await guest.goto(new URL(invitation!).pathname);
  await expect(guest.getByText('This link is not valid')).toBeVisible();

  // A link from the panel, used, seen as used, and taken back while it is open.
  await page.getByRole('tab', { name: 'Links' }).click();
  await page.getByLabel('New link').selectOption('viewer');
  await page.getByLabel('Name', { exact: true }).fill('Neighbours');
  // Until a day, written as the browser's language and region write it.
  await page.getByLabel('Expires').fill('12/31/2030');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Create link' }).click();
  const address = await page.getByRole('region', { name: 'New links' }).locator('code').textContent();
  await expect(page.getByRole('list', { name: 'Links' })).toContainText('Neighbours');
  await expect(page.getByRole('list', { name: 'Links' })).toContainText('not used yet');
  await expect(page.getByRole('list', { name: 'Links' })).toContainText('2030');
  const viewer = await comeBy(browser, new URL(address!).pathname, 'Nell');
  await page.getByRole('tab', { name: 'People' }).click();
  await expect(page.getByText('Perrin Vale')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).or(page.locator('.mantine-Modal-close')).first().click();
  await page.getByRole('button', { name: 'Share' }).click();
  await page.getByRole('tab', { name: 'Links' }).click();
  await expect(page.getByText('Opened by: Nell')).toBeVisible();
  await page.getByRole('button', { name: 'Delete the link Neighbours' }).click();
  await expect(viewer.page.getByText('You no longer have access to this sheet')).toBeVisible();
  await page.goto('/outbox');
  await expect(page.getByText(perrin).first()).toBeVisible();
  // The address works like a password until it is used: it is not kept to be read.
  await expect(page.locator('pre').first()).not.toContainText(new URL(invitation!).pathname);
  await context.close();
  await viewer.context.close();
});

const rowIds = async (page: Page, sheet: string): Promise<string[]> =>
  packedRows(await (await page.request.get(`/api/sheets/${sheet}/packed`)).body());
