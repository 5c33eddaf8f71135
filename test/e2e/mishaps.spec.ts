import { freePort, serve, stopServers } from './own-server';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

test.afterEach(stopServers);

test('an edit that was acknowledged survives the server being killed, and the page goes on by itself', async ({
  browser,
}) => {
  const port = await freePort();
  const server = await serve(port);
  const context = await browser.newContext({ baseURL: `http://127.0.0.1:${port}` });
  const page = await context.newPage();
  const id = await makeSheet(page, [['Station'], ['Alder']]);
  const sheet = await SheetPage.open(page, id);

  const acknowledged = page.waitForResponse(
    (response) => response.request().method() === 'POST' && response.url().endsWith('/changes'),
  );
  await sheet.type('A2', 'kept');
  const answer = await acknowledged;
  expect(answer.status()).toBe(200);
  // Only an answer that came through whole is one.
  await answer.finished();
  server.kill('SIGKILL');

  // Entries that are not answered wait here.
  await expect(page.getByTestId('link')).toHaveAccessibleName(/^Offline/);
  await sheet.type('A3', 'typed offline');
  await expect(sheet.cell('A3')).toHaveText('typed offline');
  await expect(page.getByTestId('link')).toHaveAccessibleName('Offline: 1 change waits here');

  await serve(port);
  await sheet.isLive();
  const fresh = await SheetPage.open(await context.newPage(), id);
  await expect(fresh.cell('A2')).toHaveText('kept');
  await expect(fresh.cell('A3')).toHaveText('typed offline');
  await context.close();
});

test('an entry into a record that somebody else removed is given back, with a word', async ({ page, context }) => {
  const id = await makeSheet(page, [['Station'], ['Alder'], ['Birch']]);
  const sheet = await SheetPage.open(page, id);
  const other = await SheetPage.open(await context.newPage(), id);
  await page.bringToFront();
  // This page hears nothing for a while, as on a train.
  await page.route('**/changes**', (route) => route.abort());
  await sheet.type('A3', 'too late');
  await other.cell('A3').click();
  await other.page.getByRole('button', { name: 'Rows' }).click();
  await other.page.getByRole('menuitem', { name: 'Delete row 3' }).click();
  await expect(other.cell('A3')).toHaveText('');
  await other.isLive();
  await page.unroute('**/changes**');
  await expect(page.getByRole('alert').filter({ hasText: 'deleted by someone else' })).toBeVisible({ timeout: 15_000 });
  await sheet.isLive();
  await expect(sheet.cell('A3')).toHaveText('');
});

test('what cannot be taken is refused in plain words, by every route', async ({ request }) => {
  const refused = async (path: string, data: unknown, type = 'application/json') => {
    const answer = await request.post(path, {
      data: Buffer.from(typeof data === 'string' ? data : JSON.stringify(data)),
      headers: { 'content-type': type },
    });
    return `${answer.status()} ${((await answer.json()) as { refused: string }).refused}`;
  };
  const changes = '/api/sheets/station-readings/changes';
  const set = (input: string, row = 'r1') => ({
    id: 'x',
    operations: [{ kind: 'set-cells', cells: [{ row, field: 'note', input }] }],
  });
  expect(await refused(changes, '{')).toBe('400 The request is not JSON');
  expect(await refused(changes, {})).toBe('400 id is required');
  expect(await refused(changes, set('a'), 'text/plain')).toContain('400 The request must be JSON');
  for (const broken of ['a\0b', '\ud800'])
    expect(await refused(changes, set(broken))).toContain('400 Text with a NUL or half a character');
  expect(await refused(changes, set('a', 'gone'))).toContain('409 The record has been deleted');
  expect(await refused('/api/sheets/nowhere/changes', set('a'))).toBe('404 There is no such sheet');
  expect(await refused('/api/sheets', { name: '' })).toContain('400 name');
  // Nothing is taken along that was not asked for, and a body is UTF-8.
  expect(await refused('/api/sheets', { name: 'A', owner: 'somebody' })).toBe('400 owner is not allowed');
  expect(await refused(changes, { ...set('a'), author: 'somebody' })).toBe('400 author is not allowed');
  const broken = await request.post(changes, {
    data: Buffer.from([0x7b, 0xff, 0x7d]),
    headers: { 'content-type': 'application/json' },
  });
  expect(await broken.text()).toContain('The request is not UTF-8');
  expect((await request.get('/api/sheets/%00/packed')).status()).toBe(404);
  expect((await request.get(`${changes}?after=soon`)).status()).toBe(400);
  expect((await request.get('/api/sheets/station-readings/past?until=soon')).status()).toBe(400);
  expect((await request.get('/api/sheets/nowhere/past?until=1')).status()).toBe(404);
});
