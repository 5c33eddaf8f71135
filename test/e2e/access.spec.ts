import type { APIRequestContext, Browser } from '@playwright/test';
import { routesOfTheApp } from './app-routes';
import { makeLink, signUp } from './people-page';
import { NOBODY } from './owner-state';
import { makeSheet } from './sheet-page';
import { expect, test } from './test';

/** A caller of the routes. */
const WHO = ['owner', 'editor', 'filler', 'viewer', 'stranger', 'revoked', 'expired', 'nobody'] as const;
type Who = (typeof WHO)[number];

/** The answers, in the order of WHO. With an empty body, 400 means: allowed, but the request is not complete. */
const SHEET_ROUTES: Readonly<Record<string, string>> = {
  //                                          owner editor filler viewer stranger revoked expired nobody
  'GET /api/sheets/ID/packed': '                200    200    403    403      404     401     401    401',
  'GET /api/sheets/ID/packed?at=0': '           200    200    403    403      404     401     401    401',
  'GET /api/sheets/ID/changes?after=x': '       400    400    403    403      404     401     401    401',
  'POST /api/sheets/ID/changes': '              400    400    400    403      404     401     401    401',
  'GET /api/sheets/ID/painted': '               400    400    200    200      404     401     401    401',
  'GET /api/sheets/ID/painted?as=filler': '     200    200    200    200      404     401     401    401',
  'GET /api/sheets/ID/painted/changes': '       400    400    400    400      404     401     401    401',
  'POST /api/sheets/ID/painted/judge': '        400    400    400    403      404     401     401    401',
  'GET /api/sheets/ID/history': '               200    200    403    403      404     401     401    401',
  'POST /api/sheets/ID/history/1': '            400    400    403    403      404     401     401    401',
  'GET /api/sheets/ID/past?until=0': '          200    200    403    403      404     401     401    401',
  'POST /api/sheets/ID/presence': '             400    400    400    400      404     401     401    401',
  'GET /api/sheets/ID/findings': '              200    200    403    403      404     401     401    401',
  'POST /api/sheets/ID/findings/seen': '        400    400    403    403      404     401     401    401',
  'POST /api/sheets/ID/findings/notes': '       400    400    403    403      404     401     401    401',
  'PATCH /api/sheets/ID/findings/rules/x': '    400    400    403    403      404     401     401    401',
  'GET /api/sheets/ID/findings/settings': '     200    200    403    403      404     401     401    401',
  'PATCH /api/sheets/ID/findings/settings': '   400    400    403    403      404     401     401    401',
  'GET /api/sheets/ID/personal-rules': '        200    200    403    403      404     401     401    401',
  'PATCH /api/sheets/ID/personal-rules': '      400    400    403    403      404     401     401    401',
  'GET /api/sheets/ID/rule-sets': '             200    200    403    403      404     401     401    401',
  'GET /api/sheets/ID/sharing': '               200    403    403    403      404     401     401    401',
  'POST /api/sheets/ID/sharing/links': '        400    403    403    403      404     401     401    401',
  'PATCH /api/sheets/ID/sharing/links/x': '     400    403    403    403      404     401     401    401',
  'DELETE /api/sheets/ID/sharing/links/x': '    400    403    403    403      404     401     401    401',
  'POST /api/sheets/ID/sharing/invitations': '  400    403    403    403      404     401     401    401',
  'PATCH /api/sheets/ID/sharing/members/x': '   400    403    403    403      404     401     401    401',
  'DELETE /api/sheets/ID/sharing/members/x': '  400    403    403    403      404     401     401    401',
  'PATCH /api/sheets/ID': '                     400    403    403    403      404     401     401    401',
  // The last: the owner's removes the sheet.
  'GET /api/sheets/ID/archive': '              200    200    403    403      404     401     401    401',
  'GET /api/sheets/ID/programs': '             200    403    403    403      404     401     401    401',
  'POST /api/sheets/ID/programs': '            400    403    403    403      404     401     401    401',
  'DELETE /api/sheets/ID/programs/x': '        404    403    403    403      404     401     401    401',
  'GET /api/sheets/ID/logger': '               200    403    403    403      404     401     401    401',
  'POST /api/sheets/ID/logger': '              400    403    403    403      404     401     401    401',
  'DELETE /api/sheets/ID/logger': '            200    403    403    403      404     401     401    401',
  // A session is no token: programs come by one alone.
  'GET /api/v1/sheets/ID': '                     401    401    401    401      401     401    401     401',
  'GET /api/v1/sheets/ID/records': '             401    401    401    401      401     401    401     401',
  'PUT /api/v1/sheets/ID/records': '             401    401    401    401      401     401    401     401',
  'GET /api/v1/sheets/ID/rules': '               401    401    401    401      401     401    401     401',
  'PUT /api/v1/sheets/ID/rules': '               401    401    401    401      401     401    401     401',
  'GET /api/v1/sheets/ID/findings': '            401    401    401    401      401     401    401     401',
  'GET /api/v1/sheets/ID/findings/stream': '     401    401    401    401      401     401    401     401',
  'GET /api/v1/sheets/ID/export': '              401    401    401    401      401     401    401     401',
  'DELETE /api/sheets/ID': '                    204    403    403    403      404     401     401    401',
};
/** Routes that are about no sheet: for somebody with an account, and for nobody. */
const OTHER_ROUTES: Readonly<Record<string, readonly [account: number, nobody: number]>> = {
  'GET /api/sheets': [200, 401],
  'POST /api/sheets': [400, 401],
  'POST /api/sheets/import': [400, 401],
  'GET /api/v1/openapi.json': [200, 200],
  'POST /api/v1/evaluate': [401, 401],
  'GET /api/findings': [200, 401],
  'POST /api/findings/seen': [204, 401],
  'POST /api/rule-sets': [400, 401],
  'PUT /api/rule-sets/x': [400, 401],
  'DELETE /api/rule-sets/x': [400, 401],
  'PATCH /api/account': [400, 401],
  'POST /api/account/password': [400, 401],
  'GET /api/health': [200, 200],
  'GET /api/ready': [200, 200],
  'GET /api/metrics': [200, 200],
  'POST /api/sign-in': [400, 400],
  'POST /api/sign-up': [400, 400],
  'POST /api/links/x': [404, 401],
  'GET /api/account/sessions': [200, 401],
  'DELETE /api/account/sessions': [200, 401],
  'DELETE /api/account/sessions/x': [404, 401],
  'POST /api/sign-out': [200, 200],
  'POST /api/demo': [200, 200],
};
/** Everything in the answer to a refused request. */
const REFUSALS = [
  'Sign in to go on, or come by a link that still works.',
  'Sign in to go on.',
  'Say who you are: the header Authorization must be "Bearer" and a token. Tokens are made under Share, Programs',
  'There is no such sheet',
  'There is no such program',
  'Only the owner and editors of this sheet get its rules and its history.',
  'You are here to read: only its owner and editors change this sheet.',
  'Only its owner decides who gets this sheet, what it is called, and whether it stays.',
];

const plain = (route: string): string => route.split('?')[0]!;

test('the table names every route of the app', () => {
  expect([...new Set([...Object.keys(SHEET_ROUTES), ...Object.keys(OTHER_ROUTES)].map(plain))].sort()).toEqual(
    routesOfTheApp().sort(),
  );
});

const ask = (as: APIRequestContext, route: string, sheet: string) => {
  const [method, path] = route.split(' ') as [string, string];
  const body = method === 'GET' || method === 'DELETE' ? {} : { data: {} };
  return as.fetch(path.replace('ID', sheet), { method, ...body });
};

async function everybody(
  browser: Browser,
  owner: APIRequestContext,
  sheet: string,
): Promise<Record<Who, APIRequestContext>> {
  const fresh = async () => (await browser.newContext({ storageState: NOBODY })).request;
  const by = async (role: 'filler' | 'viewer', endsAt?: number) => {
    const link = await makeLink(owner, sheet, { role, name: role });
    const as = await fresh();
    expect((await as.post(`/api${link.path}`, { data: { name: 'Somebody' } })).status()).toBe(200);
    if (endsAt) await owner.patch(`/api/sheets/${sheet}/sharing/links/${link.id}`, { data: { endsAt } });
    return { as, link };
  };
  const [editor, stranger] = [await fresh(), await fresh()];
  const { email } = await signUp(editor, 'Editor');
  await signUp(stranger, 'Stranger');
  const invited = await owner.post(`/api/sheets/${sheet}/sharing/invitations`, { data: { email, role: 'editor' } });
  expect((await editor.post(`/api${((await invited.json()) as { path: string }).path}`, { data: {} })).status()).toBe(
    200,
  );
  const revoked = await by('filler');
  expect((await owner.delete(`/api/sheets/${sheet}/sharing/links/${revoked.link.id}`)).status()).toBe(204);
  return {
    owner,
    editor,
    filler: (await by('filler')).as,
    viewer: (await by('viewer')).as,
    stranger,
    revoked: revoked.as,
    expired: (await by('viewer', Date.now() - 1000)).as,
    nobody: await fresh(),
  };
}

test('every route answers every role, somebody else’s sheet, a link taken back, one that has ended, and nobody as the table says', async ({
  page,
  browser,
}) => {
  const sheet = await makeSheet(page, [
    ['Station', 'Hidden from strangers'],
    ['Alder', '7'],
  ]);
  const people = await everybody(browser, page.request, sheet);
  const found: Record<string, string> = {};
  for (const [route, expected] of Object.entries(SHEET_ROUTES)) {
    const statuses: number[] = [];
    // The owner last, who may remove it.
    for (const who of [...WHO.slice(1), WHO[0]]) {
      const answer = await ask(people[who], route, sheet);
      statuses.push(answer.status());
      if ([401, 403, 404].includes(answer.status())) {
        const { refused } = (await answer.json()) as { refused: string };
        expect(REFUSALS, `${route} as ${who}`).toContain(refused);
        // Without access the answer is the same as for a sheet that does not exist.
        if (['stranger', 'nobody', 'revoked', 'expired'].includes(who)) {
          const none = await ask(people[who], route, 'no-such-sheet');
          expect([none.status(), await none.json()], `${route} as ${who}`).toEqual([answer.status(), { refused }]);
        }
      }
    }
    found[route] = [statuses.at(-1), ...statuses.slice(0, -1)].join(' ');
    expect.soft(found[route], route).toBe(expected.trim().replaceAll(/ +/g, ' '));
  }
});

test('routes that are about no sheet ask for an account where they need one; pages send others to sign in', async ({
  page,
  browser,
}) => {
  const sheet = await makeSheet(page, [['Station'], ['Alder']]);
  const account = await browser.newContext({ storageState: NOBODY });
  await signUp(account.request, 'Somebody');
  for (const [route, [signedIn, signedOut]] of Object.entries(OTHER_ROUTES)) {
    const nobody = await browser.newContext({ storageState: NOBODY });
    expect.soft((await ask(account.request, route, '')).status(), `${route}, signed in`).toBe(signedIn);
    expect.soft((await ask(nobody.request, route, '')).status(), `${route}, signed out`).toBe(signedOut);
    if (/sessions|sign-out|sign-in|sign-up/.test(route)) await signUp(account.request, 'Somebody');
    await nobody.close();
  }
  const other = await browser.newContext({ storageState: NOBODY });
  const guest = await other.newPage();
  for (const path of [
    '/',
    '/account',
    '/outbox',
    `/sheets/${sheet}`,
    `/sheets/${sheet}/history`,
    `/sheets/${sheet}/paper`,
  ]) {
    await guest.goto(path);
    expect(new URL(guest.url()).pathname, path).toBe('/sign-in');
    expect(new URL(guest.url()).searchParams.get('to'), path).toBe(path);
  }
  await signUp(other.request, 'Other');
  for (const path of [`/sheets/${sheet}`, `/sheets/${sheet}/history`, '/sheets/no-such-sheet']) {
    await guest.goto(path);
    await expect(guest.getByText('There is nothing here')).toBeVisible();
  }
});

test('an account: wrong guesses are slowed, another password ends every other session, and so does signing out everywhere', async ({
  page,
  browser,
}) => {
  const [first, second] = [
    await browser.newContext({ storageState: NOBODY }),
    await browser.newContext({ storageState: NOBODY }),
  ];
  const { email, password } = await signUp(first.request, 'Wren');
  // Nobody learns who has an account.
  expect(
    (
      await first.request.post('/api/sign-up', {
        data: { email: email.toUpperCase(), name: 'Twice', password: 'a third long one' },
      })
    ).status(),
  ).toBe(201);
  const enter = (as: APIRequestContext, given: string, at = email) =>
    as.post('/api/sign-in', { data: { email: at, password: given } });
  expect((await enter(second.request, password)).status()).toBe(200);
  expect((await second.request.get('/api/sheets')).status()).toBe(200);
  // The answer does not say which is wrong: address or password.
  const wrong = await enter(second.request, 'not the password');
  const unknown = await enter(second.request, password, 'nobody@example.org');
  expect([wrong.status(), await wrong.json()]).toEqual([unknown.status(), await unknown.json()]);

  await page.context().clearCookies();
  await page.goto('/sign-in');
  await page.getByLabel('E-mail').fill(email);
  await page.getByLabel('Password').first().fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.getByRole('button', { name: 'You are Wren' }).click();
  await page.getByRole('menuitem', { name: 'Your account' }).click();
  await page.getByLabel('Present password').fill('not it');
  await page.getByLabel('New password').fill('another long one');
  await page.getByRole('button', { name: 'Change the password' }).click();
  await expect(page.getByText('The present password is another')).toBeVisible();
  await page.getByLabel('Present password').fill(password);
  await page.getByRole('button', { name: 'Change the password' }).click();
  await expect(page.getByText('The password is changed')).toBeVisible();
  for (const { request } of [first, second]) expect((await request.get('/api/sheets')).status()).toBe(401);
  expect((await page.request.get('/api/sheets')).status()).toBe(200);
  expect((await enter(first.request, password)).status()).toBe(400);
  expect((await enter(first.request, 'another long one')).status()).toBe(200);
  await page.getByRole('button', { name: 'Sign out everywhere' }).click();
  await page.waitForURL('**/sign-in');
  expect((await first.request.get('/api/sheets')).status()).toBe(401);

  for (let guess = 0; guess < 10; guess++) await enter(second.request, `guess number ${guess}`);
  expect((await enter(second.request, 'another long one')).status()).toBe(429);
});
