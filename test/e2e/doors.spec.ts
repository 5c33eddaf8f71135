import { request as ask, type IncomingHttpHeaders } from 'node:http';
import postgres from 'postgres';
import { pagesOfTheApp, routesOfTheApp } from './app-routes';
import { freePort, serve, stopServers } from './own-server';
import { NOBODY } from './owner-state';
import { makeLink, signUp } from './people-page';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

test.afterEach(stopServers);

interface Answer {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly text: string;
}

/** Asks as no browser does: with any headers. Streams are left once they begin. */
const plainly = (
  address: string,
  {
    method = 'GET',
    headers = {},
    body = '',
  }: { method?: string; headers?: Record<string, string>; body?: string } = {},
) =>
  new Promise<Answer>((resolve, reject) => {
    const length =
      headers['transfer-encoding'] === undefined ? { 'content-length': String(Buffer.byteLength(body)) } : {};
    const sent = ask(
      address,
      { method, headers: { ...headers, ...length }, setHost: headers.host === undefined },
      (found) => {
        let text = '';
        const done = () => resolve({ status: found.statusCode!, headers: found.headers, text });
        if (String(found.headers['content-type']).startsWith('text/event-stream')) {
          done();
          return sent.destroy();
        }
        found.on('data', (part) => (text += String(part)));
        found.on('end', done);
      },
    );
    sent.on('error', reject);
    sent.end(body);
  });
const json = { 'content-type': 'application/json' };

test('every route and page has the headers of a closed door', async ({ baseURL }) => {
  const asked = [
    ...routesOfTheApp().map(({ route }) => route),
    ...pagesOfTheApp().map((page) => `GET ${page}`),
    'GET /nowhere',
    'GET /icon.svg',
  ];
  expect(asked.length).toBeGreaterThan(50);
  for (const one of asked) {
    const [method, path] = one.split(' ') as [string, string];
    const { headers } = await plainly(baseURL! + path, { method, headers: json, body: method === 'GET' ? '' : '{}' });
    const policy = String(headers['content-security-policy']);
    const scripts = policy.split('; ').find((part) => part.startsWith('script-src'))!;
    expect(scripts, one).toMatch(/'nonce-[\w+/=]{20,}'/);
    expect(scripts, one).not.toMatch(/unsafe-(inline|eval)/);
    expect(policy, one).toContain("frame-ancestors 'none'");
    expect(policy, one).toContain("object-src 'none'");
    expect(headers, one).toMatchObject({
      'x-content-type-options': 'nosniff',
      'referrer-policy': 'no-referrer',
      'x-frame-options': 'DENY',
    });
    expect(headers['permissions-policy'], one).toContain('camera=()');
    expect(headers['cache-control'], one).toContain('no-store');
    expect([headers['x-powered-by'], headers.server], one).toEqual([undefined, undefined]);
  }
});

test('scripts of a page carry its nonce, which is another each time; none stands in the page without one', async ({
  baseURL,
}) => {
  const nonces = new Set<string>();
  for (let at = 0; at < 2; at++) {
    const { headers, text } = await plainly(`${baseURL}/sign-in`);
    const nonce = /'nonce-([^']+)'/.exec(String(headers['content-security-policy']))![1]!;
    nonces.add(nonce);
    const scripts = text.match(/<script\b[^>]*>/g)!;
    expect(scripts.length).toBeGreaterThan(2);
    for (const script of scripts) expect(script).toContain(`nonce="${nonce}"`);
  }
  expect(nonces.size).toBe(2);
});

test('a page asks this address alone, and a password can be pasted, kept by the browser, and seen', async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({ storageState: NOBODY });
  const page = await context.newPage();
  const hosts = new Set<string>();
  page.on('request', (sent) =>
    hosts.add(new URL(sent.url()).protocol === 'data:' ? 'data' : new URL(sent.url()).origin),
  );
  await page.goto('/sign-in');
  await expect(page.getByLabel('E-mail')).toHaveAttribute('autocomplete', 'username');
  const password = page.getByRole('textbox', { name: 'Password' });
  await expect(password).toHaveAttribute('autocomplete', 'current-password');
  // Again where the page was not yet live: it then starts from an empty field.
  await expect(async () => {
    await password.evaluate((field: HTMLInputElement) => {
      field.select();
      document.execCommand('insertText', false, 'marigold ferry');
    });
    await page.waitForTimeout(300);
    expect(await password.inputValue()).toBe('marigold ferry');
  }).toPass({ timeout: 15_000 });
  await expect(password).toHaveAttribute('type', 'password');
  await page.locator('.mantine-PasswordInput-visibilityToggle').click();
  await expect(password).toHaveAttribute('type', 'text');
  await page.getByRole('button', { name: 'Create account' }).click();
  await expect(password).toHaveAttribute('autocomplete', 'new-password');
  hosts.delete('data');
  expect([...hosts]).toEqual([new URL(baseURL!).origin]);
  await context.close();
});

test('a foreign name that leads here gets nothing, whatever it asks for', async ({ baseURL }) => {
  for (const path of ['/', '/api/health', '/sign-in', '/_next/static/x.js', '/api/v1/openapi.json'])
    for (const host of ['evil.example', 'localhost.evil.example:4380', '127.0.0.1.nip.example'])
      expect((await plainly(baseURL! + path, { headers: { host } })).status, `${host}${path}`).toBe(421);
  expect((await plainly(`${baseURL}/api/health`, { headers: { host: 'localhost:1' } })).status).toBe(200);
});

test('scripts come compressed, may be kept for good, and carry the policy', async ({ page, baseURL }) => {
  await page.goto('/sign-in');
  const script = await page.locator('script[src*="/_next/static/"]').first().getAttribute('src');
  // RFC 9110, 12.5.3: the coding is one of those that the client takes.
  for (const [accepted, coding] of [
    ['br, gzip', 'br'],
    ['gzip', 'gzip'],
    ['identity', undefined],
  ] as const) {
    const { headers, status } = await plainly(baseURL! + script!, { headers: { 'accept-encoding': accepted } });
    expect(status).toBe(200);
    expect(headers['content-encoding']).toBe(coding);
    expect(headers['cache-control']).toContain('immutable');
    expect(headers['content-security-policy']).toContain("default-src 'self'");
  }
  expect((await plainly(`${baseURL}/_next/static/x.js`)).status).toBe(404);
});

const FOREIGN = [
  ['sec-fetch-site', 'cross-site'],
  ['sec-fetch-site', 'same-site'],
  ['origin', 'http://evil.example'],
  ['origin', 'null'],
] as const;

test('what changes something is taken from pages of ours and from programs alone', async ({ baseURL }) => {
  const change = (path: string, headers: Record<string, string>) =>
    plainly(baseURL! + path, { method: 'POST', headers: { ...json, ...headers }, body: '{}' });
  for (const path of ['/api/demo', '/api/sign-out', '/api/sheets', '/api/sign-in'])
    for (const [name, value] of FOREIGN) expect((await change(path, { [name]: value })).status, path).toBe(403);
  expect((await change('/api/sign-out', { 'sec-fetch-site': 'same-origin' })).status).toBe(200);
  expect(
    (await change('/api/v1/evaluate', { authorization: 'Bearer none', origin: 'http://evil.example' })).status,
  ).toBe(401);
});

test('a body that is too long is refused before it is read', async ({ baseURL }) => {
  const long = await plainly(`${baseURL}/api/sign-in`, {
    method: 'POST',
    headers: json,
    body: JSON.stringify({ email: 'x'.repeat(20_000) }),
  });
  expect([long.status, long.text]).toEqual([413, expect.stringContaining('at most 10,000 bytes')]);
  const chunked = { ...json, 'transfer-encoding': 'chunked' };
  expect(
    (
      await plainly(`${baseURL}/api/sign-in`, {
        method: 'POST',
        headers: chunked,
        body: JSON.stringify({ email: 'x'.repeat(20_000) }),
      })
    ).status,
  ).toBe(413);
});

test('an operator sees whether the server lives, whether it is ready, and what it does', async ({ baseURL }) => {
  expect(JSON.parse((await plainly(`${baseURL}/api/health`)).text)).toEqual({ alive: true });
  expect(JSON.parse((await plainly(`${baseURL}/api/ready`)).text)).toEqual({
    ready: true,
    database: true,
    migrations: true,
    workers: true,
  });
  const { text } = await plainly(`${baseURL}/api/metrics`);
  // The text format of Prometheus, version 0.0.4: a line a sample.
  for (const name of [
    'auxesis_request_seconds_count',
    'auxesis_changes_total',
    'auxesis_streams',
    'auxesis_work_waiting',
    'auxesis_work_given_up_total',
  ])
    expect(text).toMatch(new RegExp(`^${name}(\\{[^}]*\\})? \\d`, 'm'));
});

test('where others can reach the app, the demo is off, accounts are made by invitation, and links lead to its public address', async () => {
  const port = await freePort();
  await serve(port, { AUXESIS_PUBLIC_URL: 'https://sheets.wrenfold.example' });
  const address = `http://127.0.0.1:${port}`;
  const post = (path: string, body: object) =>
    plainly(address + path, { method: 'POST', headers: json, body: JSON.stringify(body) });
  expect((await post('/api/demo', {})).status).toBe(403);
  const account = { email: `somebody.${Date.now()}@example.org`, name: 'Somebody', password: 'a long password' };
  expect((await post('/api/sign-up', account)).text).toContain('by invitation');
  expect((await post('/api/sign-up', { ...account, invitation: 'made-up' })).status).toBe(403);
  const page = await plainly(`${address}/sign-in`, { headers: { host: 'sheets.wrenfold.example' } });
  expect(page.status).toBe(200);
  expect(page.text).not.toContain('Open the demo');
  expect(page.text).not.toContain('Create account');
  expect(page.headers['strict-transport-security']).toMatch(/max-age=\d+/);
  // A proxy on this computer asks by the public name: what is for the computer alone is not for those behind it.
  expect((await plainly(`${address}/api/metrics`)).status).toBe(200);
  expect((await plainly(`${address}/api/metrics`, { headers: { host: 'sheets.wrenfold.example' } })).status).toBe(403);
  // Nobody says by a header where links lead.
  const described = await plainly(`${address}/api/v1/openapi.json`, {
    headers: { 'x-forwarded-host': 'evil.example', 'x-forwarded-proto': 'http' },
  });
  expect((JSON.parse(described.text) as { servers: { url: string }[] }).servers[0]!.url).toMatch(
    /^https:\/\/sheets\.wrenfold\.example\//,
  );
});

test('cookies are out of reach of scripts and other sites, and go over TLS alone where the app is reached by it', async ({
  request,
  baseURL,
}) => {
  const account = { email: `gwen.${Date.now()}@example.org`, password: 'a long password' };
  await request.post('/api/sign-up', { data: { ...account, name: 'Gwen' } });
  const port = await freePort();
  await serve(port, { AUXESIS_PUBLIC_URL: 'https://sheets.wrenfold.example' });
  for (const [address, isSecure] of [
    [baseURL!, false],
    [`http://127.0.0.1:${port}`, true],
  ] as const) {
    const { status, headers } = await plainly(`${address}/api/sign-in`, {
      method: 'POST',
      headers: json,
      body: JSON.stringify(account),
    });
    expect(status).toBe(200);
    const cookies = headers['set-cookie']!;
    expect(cookies.map((cookie) => cookie.split('=', 1)[0])).toEqual(['auxesis-session', 'auxesis-device']);
    for (const cookie of cookies) {
      expect(cookie).toMatch(/; Path=\/;.*; HttpOnly; SameSite=lax$/i);
      expect(/; Secure;/.test(cookie)).toBe(isSecure);
    }
  }
});

test('a token is taken in its header alone', async ({ page, baseURL }) => {
  const id = await makeSheet(page, [['Station'], ['Alder']]);
  const made = await page.request.post(`/api/sheets/${id}/programs`, { data: { name: 'Reader', scopes: ['read'] } });
  const { token } = (await made.json()) as { token: string };
  const address = `${baseURL}/api/v1/sheets/${id}`;
  expect((await plainly(address, { headers: { authorization: `Bearer ${token}` } })).status).toBe(200);
  for (const query of [`?token=${token}`, `?access_token=${token}`])
    expect((await plainly(address + query)).status).toBe(401);
});

test('a download that breaks off ends itself alone', async ({ page, request, baseURL }) => {
  const id = await makeSheet(page, [['Station'], ...Array.from({ length: 60 }, (_, at) => [`Station ${at}`])]);
  const { cookies } = await request.storageState();
  const headers = { cookie: cookies.map(({ name, value }) => `${name}=${value}`).join('; ') };
  for (let at = 0; at < 5; at++)
    await new Promise<void>((resolve) => {
      const sent = ask(`${baseURL}/api/sheets/${id}/archive`, { headers }, (found) => {
        found.once('data', () => sent.destroy());
        found.once('close', () => resolve());
      });
      sent.on('error', () => resolve());
      sent.end();
    });
  expect((await request.get(`/api/sheets/${id}/archive`)).status()).toBe(200);
  expect((await plainly(`${baseURL}/api/ready`)).status).toBe(200);
});

test('an archive that holds a NUL, or is none, is refused in words', async ({ request }) => {
  const { gzipSync } = await import('node:zlib');
  const send = (data: Buffer) =>
    request.post('/api/sheets/import', { data, headers: { 'content-type': 'application/gzip' } });
  const field = { id: 'f', key: 'a0', widthPx: 100, format: null, unit: null };
  const head = {
    format: 'auxesis-archive',
    version: 1,
    name: 'N',
    settings: {},
    createdAt: 0,
    fields: [field],
    rules: [],
    parts: [],
  };
  const line = (cells: string) =>
    `${JSON.stringify(head)}\n{"row":{"id":"r","key":"a0","role":"record","cells":${cells}}}\n{"end":{"rows":1,"changes":0}}\n`;
  const good = await send(gzipSync(line('{"f":"1"}')));
  expect(good.status(), await good.text()).toBe(201);
  for (const bad of [
    gzipSync(line('{"f":"a\\u0000b"}')),
    gzipSync(line('{"__proto__":"1"}')),
    gzipSync('\0'),
    Buffer.from('not packed'),
    gzipSync(line('{"f":"1"}')).subarray(0, 40),
  ]) {
    const answer = await send(bad);
    expect(answer.status()).toBe(400);
    expect(((await answer.json()) as { refused: string }).refused).toMatch(/^The file cannot be/);
  }
});

test('the account lists its sessions, and ends those that are not one’s own', async ({ browser }) => {
  const [here, there] = [
    await browser.newContext({ storageState: NOBODY }),
    await browser.newContext({ storageState: NOBODY }),
  ];
  const account = { email: `ilse.${Date.now()}@example.org`, password: 'a long password' };
  await here.request.post('/api/sign-up', { data: { ...account, name: 'Ilse' } });
  for (const context of [here, there])
    expect((await context.request.post('/api/sign-in', { data: account })).status()).toBe(200);
  const page = await here.newPage();
  await page.goto('/account');
  const list = page.getByRole('list', { name: 'Where you are signed in' });
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await expect(list).toContainText('This browser');
  await list.getByRole('button', { name: 'Sign out there' }).click();
  await expect(list.getByRole('listitem')).toHaveCount(1);
  expect((await there.request.get('/api/sheets')).status()).toBe(401);
  expect((await here.request.get('/api/sheets')).status()).toBe(200);
});

test('signing out ends the streams of that session at once, and nobody else’s', async ({ browser, baseURL }) => {
  const follow = async (name: string) => {
    const { request } = await browser.newContext({ storageState: NOBODY });
    await signUp(request, name);
    const made = await request.post('/api/sheets', { data: { name: `Of ${name}` } });
    const { id } = (await made.json()) as { id: string };
    const { cookies } = await request.storageState();
    const told = { text: '', isOver: false };
    const headers = { cookie: cookies.map((cookie) => `${cookie.name}=${cookie.value}`).join('; ') };
    const sent = ask(`${baseURL}/api/sheets/${id}/changes?after=0`, { headers }, (found) => {
      found.on('data', (part) => (told.text += String(part)));
      found.on('end', () => (told.isOver = true));
    });
    sent.on('error', () => (told.isOver = true));
    sent.end();
    await expect.poll(() => told.text).not.toBe('');
    return { request, told, sent };
  };
  const [nell, ruth] = [await follow('Nell'), await follow('Ruth')];
  await nell.request.post('/api/sign-out', { data: {} });
  await expect.poll(() => nell.told).toMatchObject({ text: expect.stringContaining('event: closed'), isOver: true });
  expect(ruth.told).toMatchObject({ text: expect.not.stringContaining('event: closed'), isOver: false });
  ruth.sent.destroy();
});

test('the owner of a sheet that the server gave up sees why, and readers see that it is not shown', async ({
  page,
  browser,
}) => {
  const id = await makeSheet(page, [['Station'], ['Alder']]);
  const { path } = await makeLink(page.request, id, { role: 'viewer', name: 'Readers' });
  const sql = postgres(process.env.DATABASE_URL!, { max: 1 });
  await sql`insert into sheet_left_out (sheet_id, sequence, times) select id, head, 1 from sheet where id = ${id}`;
  await page.goto(`/sheets/${id}`);
  await expect(page.getByRole('note')).toContainText('The server gave this sheet up');
  const reader = await browser.newContext({ storageState: NOBODY });
  await reader.request.post(`/api${path}`, { data: { name: 'Nell' } });
  const there = await reader.newPage();
  await there.goto(`/sheets/${id}`);
  await expect(there.getByRole('alert').filter({ hasText: 'cannot be shown' })).toContainText(
    'too much work for the server',
  );
  // Once it is changed, and some time has passed, it is tried again.
  await new SheetPage(page).type('A3', 'Birch');
  await sql`update sheet_left_out set at = now() - interval '1 hour' where sheet_id = ${id}`;
  await sql.end();
  await there.reload();
  await expect(new SheetPage(there).cell('A3')).toHaveText('Birch');
  await page.reload();
  await expect(page.getByRole('note')).toHaveCount(0);
});

test('the app’s role in the database may do nothing but own its own', async () => {
  const sql = postgres(process.env.DATABASE_URL!, { max: 1 });
  const [role] =
    await sql`select rolsuper, rolcreatedb, rolcreaterole, rolreplication, rolbypassrls from pg_roles where rolname = current_user`;
  await sql.end();
  expect(role).toEqual({
    rolsuper: false,
    rolcreatedb: false,
    rolcreaterole: false,
    rolreplication: false,
    rolbypassrls: false,
  });
});
