import type { APIRequestContext, Browser } from '@playwright/test';
import { routesOfTheApp } from './app-routes';
import { makeLink, signUp } from './people-page';
import { NOBODY } from './owner-state';
import { makeSheet } from './sheet-page';
import { expect, test } from './test';

/** A caller of the routes. */
const WHO = ['owner', 'editor', 'filler', 'viewer', 'stranger', 'revoked', 'expired', 'nobody'] as const;
type Who = (typeof WHO)[number];

/** The roles that have each permit. */
const HAVE: Readonly<Record<string, readonly Who[]>> = {
  read: ['owner', 'editor', 'filler', 'viewer'],
  enter: ['owner', 'editor', 'filler'],
  work: ['owner', 'editor'],
  own: ['owner'],
};
/** Routes that ask for more than they declare: everybody can leave a sheet, only its owner removes others. */
const STRICTER: Readonly<Record<string, string>> = { 'DELETE /api/sheets/ID/sharing/members/x': 'own' };
/** Queries with which a route answers at once, or does what it is asked. */
const QUERIES: Readonly<Record<string, string>> = {
  'GET /api/sheets/ID/changes': '?after=x',
  'GET /api/sheets/ID/past': '?until=0',
};
/** What somebody without the permit gets. */
const REFUSED: Readonly<Record<Who, number>> = {
  owner: 403,
  editor: 403,
  filler: 403,
  viewer: 403,
  stranger: 404,
  revoked: 401,
  expired: 401,
  nobody: 401,
};

/** Everything in the answer to a refused request. */
const REFUSALS = [
  'Sign in, or use a link that is still valid.',
  'Sign in to continue.',
  'Say who you are: the header Authorization must be "Bearer" and a token. Tokens are made under Share, Programs',
  'There is no such sheet',
  'There is no such program',
  'Only the owner and editors of this sheet get its rules and its history.',
  'You are here to read: only its owner and editors change this sheet.',
  'Only its owner decides who gets this sheet, what it is called, and whether it stays.',
];

const ask = (as: APIRequestContext, route: string, sheet: string) => {
  const [method, path] = route.split(' ') as [string, string];
  const body = method === 'GET' || method === 'DELETE' ? {} : { data: {} };
  return as.fetch(path.replace('ID', sheet) + (QUERIES[route] ?? ''), { method, ...body });
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

test('every route answers every role, somebody else’s sheet, a link taken back, one that has ended, and nobody as it declares', async ({
  page,
  browser,
}) => {
  const sheet = await makeSheet(page, [
    ['Station', 'Hidden from strangers'],
    ['Alder', '7'],
  ]);
  const people = await everybody(browser, page.request, sheet);
  const routes = routesOfTheApp().filter(({ route }) => route.includes('/ID'));
  // The last, since the owner's removes the sheet.
  const last = routes.filter(({ route }) => route === 'DELETE /api/sheets/ID');
  expect(last).toHaveLength(1);
  for (const { route, kind, permit } of [...routes.filter((each) => !last.includes(each)), ...last]) {
    // A session is no token: programs come by one alone.
    const have = kind === 'program' ? [] : HAVE[STRICTER[route] ?? permit]!;
    // The owner last, who may remove it.
    for (const who of [...WHO.slice(1), WHO[0]]) {
      const what = `${route} as ${who}`;
      const answer = await ask(people[who], route, sheet);
      if (have.includes(who)) {
        // Visitors by a link have no account; the others are allowed, though an empty body is refused.
        expect.soft([401, 403], what).not.toContain(answer.status());
        continue;
      }
      expect.soft(answer.status(), what).toBe(kind === 'program' ? 401 : REFUSED[who]);
      const { refused } = (await answer.json()) as { refused: string };
      expect(REFUSALS, what).toContain(refused);
      // Without access the answer is the same as for a sheet that does not exist.
      if (['stranger', 'nobody', 'revoked', 'expired'].includes(who)) {
        const none = await ask(people[who], route, 'no-such-sheet');
        expect([none.status(), await none.json()], what).toEqual([answer.status(), { refused }]);
      }
    }
  }
});

test('routes that are about no sheet ask for an account where they need one; pages send others to sign in', async ({
  page,
  browser,
}) => {
  const sheet = await makeSheet(page, [['Station'], ['Alder']]);
  const account = await browser.newContext({ storageState: NOBODY });
  await signUp(account.request, 'Somebody');
  for (const { route, kind } of routesOfTheApp().filter(({ route: each }) => !each.includes('/ID'))) {
    const nobody = await browser.newContext({ storageState: NOBODY });
    const status = async (as: APIRequestContext) => (await ask(as, route, '')).status();
    if (kind === 'program') expect.soft(await status(account.request), `${route}, signed in`).toBe(401);
    else expect.soft([401, 403], `${route}, signed in`).not.toContain(await status(account.request));
    // A link is opened by anybody who says a name, and an invitation is accepted by somebody with an account.
    const needsAccount = kind !== 'openRoute' || route === 'POST /api/links/x';
    if (needsAccount) expect.soft(await status(nobody.request), `${route}, signed out`).toBe(401);
    else expect.soft([401, 403], `${route}, signed out`).not.toContain(await status(nobody.request));
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
  // The page may still be coming to life, or be fetched once more after signing in.
  await expect(async () => {
    await page.getByRole('button', { name: 'You are Wren' }).click();
    await page.getByRole('menuitem', { name: 'Your account' }).click({ timeout: 2000 });
  }).toPass();
  // Dates are written as the browser's region writes them, or that of the account.
  const dates = page.getByRole('list', { name: 'Where you are signed in' });
  await expect(dates).toContainText(/since \w{3} \d+, 20\d\d, \d\d:\d\d/);
  await page.getByLabel('Numbers and dates').selectOption('GB');
  await expect(dates).toContainText(/since \d+ \w{3,4} 20\d\d, \d\d:\d\d/);
  await page.reload();
  await expect(page.getByLabel('Numbers and dates')).toHaveValue('GB');
  await page.getByLabel('Current password').fill('not it');
  await page.getByLabel('New password').fill('another long one');
  await page.getByRole('button', { name: 'Change password' }).click();
  await expect(page.getByText('The current password is wrong')).toBeVisible();
  await page.getByLabel('Current password').fill(password);
  await page.getByRole('button', { name: 'Change password' }).click();
  await expect(page.getByText('The password was changed')).toBeVisible();
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
