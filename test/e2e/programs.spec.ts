import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { Validator } from '@seriousme/openapi-schema-validator';
import type { Page } from '@playwright/test';
import { EventSource } from 'eventsource';
import { OpenAPIClientAxios, type AxiosRequestConfig, type Document, type OpenAPIClient } from 'openapi-client-axios';
import { runLogger } from '../../src/demo/logger/run-logger';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

/** Makes a token on screen, with the given scopes. */
async function makeToken(page: Page, name: string, ...scopes: readonly RegExp[]): Promise<string> {
  await page.getByRole('button', { name: 'Share', exact: true }).click();
  await page.getByRole('tab', { name: 'Programs' }).click();
  await page.getByLabel('New program').fill(name);
  for (const scope of scopes) await page.getByRole('checkbox', { name: scope }).check();
  await page.getByRole('button', { name: 'Create token' }).click();
  const token = await page.getByRole('region', { name: 'New token' }).locator('code').textContent();
  expect(token).toMatch(/^auxesis_[\w-]{43}$/);
  return token!;
}

type Client = OpenAPIClient &
  Record<
    string,
    (
      parameters?: object | null,
      body?: object,
      config?: AxiosRequestConfig,
    ) => Promise<{ status: number; data: never; headers: Record<string, string> }>
  >;

test('the OpenAPI document is valid, and a client that is made of it alone reads, enters, judges and follows', async ({
  page,
  baseURL,
}) => {
  const sheet = await makeSheet(page, [
    ['Station', 'Oxygen'],
    ['Alder Weir', '9.1'],
    ['Birch Ford', '8.2'],
  ]);
  await SheetPage.open(page, sheet);
  const token = await makeToken(page, 'Field office', /replace rules/, /receive findings/);
  const definition = (await (await page.request.get('/api/v1/openapi.json')).json()) as Document;
  // By the JSON schema of OpenAPI 3.1 that the OpenAPI Initiative publishes.
  expect(await new Validator().validate(structuredClone(definition) as never)).toMatchObject({ valid: true });
  const axiosConfigDefaults = { headers: { Authorization: `Bearer ${token}` }, validateStatus: () => true };
  const client = (await new OpenAPIClientAxios({ definition, axiosConfigDefaults }).init()) as Client;
  const ask = async (
    ...[operation, parameters = {}, body, headers = {}]: readonly [string, object?, object?, Record<string, string>?]
  ) => {
    const { status, data, headers: told } = await client[operation]!({ sheet, ...parameters }, body, { headers });
    return { status, data: data as Record<string, unknown>, etag: told.etag ?? '' };
  };
  expect((await ask('readSheet')).data).toMatchObject({ records: 2, rules: 0, id: sheet });
  const rule = {
    id: 'low',
    name: 'Low oxygen',
    reads: { fields: ['Oxygen'] },
    when: { kind: 'compare', is: '<', to: 5 },
    paints: 'cell',
    look: { fill: '#f7d3c8' },
  };
  const rules = await ask('readRules');
  const file = { format: 'auxesis-rules', version: 1, rules: [rule] };
  expect(await ask('replaceRules', {}, file, { 'If-Match': rules.etag })).toMatchObject({
    status: 200,
    data: { rules: 1 },
  });
  expect((await ask('replaceRules', {}, file, { 'If-Match': rules.etag })).status).toBe(412);
  expect((await ask('readRules')).data).toMatchObject({
    rules: [{ name: 'Low oxygen', reads: { fields: ['Oxygen'] } }],
  });

  const heard: { record: string; way: string }[] = [];
  const stream = new EventSource(`${baseURL}/api/v1/sheets/${sheet}/findings/stream`, {
    fetch: (input, init) => fetch(input, { ...init, headers: { ...init.headers, Authorization: `Bearer ${token}` } }),
  });
  stream.addEventListener('findings', ({ data }) => heard.push(...(JSON.parse(data as string) as typeof heard)));
  await expect.poll(() => stream.readyState).toBe(stream.OPEN);
  const key = { 'Idempotency-Key': 'first' };
  const records = {
    key: 'Station',
    records: [
      { Station: 'alder weir', Oxygen: 4.1 },
      { Station: 'Cedar Sluice', Oxygen: 7 },
    ],
  };
  const taken = await ask('upsertRecords', {}, records, key);
  expect(taken.data).toMatchObject({ inserted: 1, updated: 1, unchanged: 0 });
  expect((await ask('upsertRecords', {}, records, key)).data).toEqual(taken.data);
  await expect.poll(() => heard).toMatchObject([{ record: 'Alder Weir', way: 'entered' }]);
  stream.close();
  expect((await ask('readFindings')).data).toMatchObject({
    findings: [{ ruleName: 'Low oxygen', way: 'entered', by: 'Field office' }],
    next: null,
  });

  const first = await ask('readRecords', { limit: 2 });
  expect(first.data.records).toMatchObject([
    { values: { Oxygen: 4.1 }, looks: { Oxygen: { look: { fill: '#f7d3c8' }, rules: ['Low oxygen'] } } },
    {},
  ]);
  expect((await ask('readRecords', { limit: 2, cursor: first.data.next as string })).data).toMatchObject({
    records: [{ values: { Station: 'Cedar Sluice' } }],
    next: null,
  });
  expect((await ask('readRecords', { where: 'Oxygen<5', rule: 'Low oxygen' })).data.records).toHaveLength(1);
  expect((await ask('readRecords', { limit: 2 }, undefined, { 'If-None-Match': first.etag })).status).toBe(304);
  expect(await ask('readRecords', { where: 'Oxigen<5' })).toMatchObject({
    status: 400,
    data: { refused: 'where: there is no field "Oxigen"' },
  });
  expect(await ask('upsertRecords', {}, { key: 'Station', records: [{ Station: { nested: 1 } }] })).toMatchObject({
    status: 400,
  });
  expect((await ask('exportSheet', { format: 'csv' })).status).toBe(200);
  expect((await ask('evaluate', {}, { data: [{ Oxygen: 4.9 }, { Oxygen: 5 }], rules: file })).data).toMatchObject({
    rules: [{ id: 'low', matched: ['A2'] }],
  });
  // A token that only reads takes out values, and nothing that holds the rules.
  const reading = (await (
    await page.request.post(`/api/sheets/${sheet}/programs`, { data: { name: 'Reader', scopes: ['read'] } })
  ).json()) as {
    id: string;
    token: string;
  };
  const takenOut = async (format: string) =>
    (
      await page.request.get(`/api/v1/sheets/${sheet}/export?format=${format}`, {
        headers: { authorization: `Bearer ${reading.token}` },
      })
    ).status();
  expect([await takenOut('csv'), await takenOut('json'), await takenOut('ooxml'), await takenOut('archive')]).toEqual([
    200, 200, 403, 403,
  ]);
  await page.request.delete(`/api/sheets/${sheet}/programs/${reading.id}`);

  await page.getByRole('button', { name: 'Delete the token of Field office' }).click();
  await expect(page.getByText('No programs yet.')).toBeVisible();
  expect((await ask('readSheet')).status).toBe(401);
});

test('the page for programs runs its examples with a token', async ({ page }) => {
  await SheetPage.open(
    page,
    await makeSheet(page, [
      ['Station', 'Dissolved oxygen'],
      ['Alder Weir', '6.4'],
    ]),
  );
  const token = await makeToken(page, 'Reader');
  await page.getByRole('link', { name: 'API reference' }).click();
  await page.getByLabel('Your token, to try the examples').fill(token);
  const part = page.getByRole('region', { name: 'Records, page by page' });
  await part.getByRole('button', { name: 'Run it here' }).click();
  await expect(part.getByLabel('Answer')).toContainText('"Station": "Alder Weir"');
});

/** The environment of the process whose command line has these words, as Linux gives it (proc(5)). */
function environmentOf(...words: readonly string[]): string {
  const told = (pid: string, what: string) =>
    existsSync(`/proc/${pid}/${what}`) ? readFileSync(`/proc/${pid}/${what}`, 'latin1') : '';
  const pid = readdirSync('/proc').find(
    (name) => /^\d+$/.test(name) && words.every((word) => told(name, 'cmdline').split('\0').includes(word)),
  );
  return told(pid ?? '', 'environ');
}

test('with the logger on the sheet recolours by itself and findings fill; what it counts as taken is there', async ({
  page,
  baseURL,
}) => {
  const id = await makeSheet(page, [
    ['Station', 'Day', 'Crew', 'pH', 'Dissolved oxygen', 'Turbidity', 'Nitrate', 'Note'],
  ]);
  const rule = {
    id: 'low',
    name: 'Low oxygen',
    on: true,
    settles: false,
    reads: { fields: ['f5'] },
    when: { kind: 'compare', is: '<', to: 7.8 },
    paints: 'cell',
    look: { look: 'alarm' },
  };
  await page.request.post(`/api/sheets/${id}/changes`, {
    data: { id: `rule-${Date.now()}`, operations: [{ kind: 'put-rules', rules: [{ id: 'low', key: 'a0', rule }] }] },
  });
  const sheet = await SheetPage.open(page, id);
  await page.getByRole('button', { name: 'Share', exact: true }).click();
  await page.getByRole('tab', { name: 'Programs' }).click();
  const logger = page.getByRole('region', { name: 'Logger' });
  await logger.getByLabel('Pattern').selectOption('bursts');
  await logger.getByRole('button', { name: 'Start' }).click();
  await expect(logger.getByText('Running')).toBeVisible();
  // It knows its token and nothing else that is secret.
  const environment = environmentOf('logger', `--sheet=${id}`);
  expect(environment).toMatch(/AUXESIS_TOKEN=/);
  expect(environment).not.toMatch(/DATABASE_URL|postgres:/);
  await page.keyboard.press('Escape');
  await expect(sheet.legend).toContainText(/Low oxygen\s*[1-9]\d* of/, { timeout: 30_000 });
  await page.getByRole('button', { name: 'Share', exact: true }).click();
  await page.getByRole('tab', { name: 'Programs' }).click();
  await logger.getByRole('button', { name: 'Stop' }).click();
  await expect(logger.getByRole('button', { name: 'Start' })).toBeVisible();
  await page.goto(`/sheets/${id}/findings`);
  await expect(page.getByText(/entered Low oxygen/).first()).toBeVisible();
  // Once more from here, so that its own counts can be held against the sheet.
  const { token } = (await (
    await page.request.post(`/api/sheets/${id}/programs`, { data: { name: 'Counted', scopes: ['read', 'write'] } })
  ).json()) as { token: string };
  const records = async () => {
    const answer = await page.request.get(`/api/v1/sheets/${id}/records?limit=1000&looks=false`, {
      headers: { authorization: `Bearer ${token}` },
    });
    return ((await answer.json()) as { records: unknown[] }).records.length;
  };
  const before = await records();
  const { counts, end } = await runLogger({
    address: baseURL!,
    sheet: id,
    token,
    way: 'mixed',
    everyMs: 60,
    forMs: 5000,
  });
  expect(end).toBe('over');
  expect(counts.readings).toBe(counts.inserted + counts.updated + counts.unchanged);
  expect((await records()) - before).toBe(counts.inserted);
});
