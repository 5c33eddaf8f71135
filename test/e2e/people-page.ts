import { expect, type APIRequestContext, type Browser, type BrowserContext, type Page } from '@playwright/test';
import type { LinkRole } from '../../src/core/sharing/role';
import type { LinkGives, MadeLink } from '../../src/protocol/sheet-sharing';
import { NOBODY } from './owner-state';
import { SheetPage } from './sheet-page';

/** Makes a link to a sheet, as its owner. */
export async function makeLink(
  request: APIRequestContext,
  sheet: string,
  link: { readonly role: LinkRole; readonly name: string; readonly gives?: LinkGives; readonly endsAt?: number },
): Promise<MadeLink> {
  const answer = await request.post(`/api/sheets/${sheet}/sharing/links`, { data: { links: [link] } });
  expect(answer.status()).toBe(201);
  return ((await answer.json()) as MadeLink[])[0]!;
}

/** Somebody who comes by a link in a browser of their own. */
export async function comeBy(
  browser: Browser,
  path: string,
  name: string,
): Promise<{ context: BrowserContext; page: Page; sheet: SheetPage }> {
  const context = await browser.newContext({ storageState: NOBODY });
  const page = await context.newPage();
  const sheet = await joinIn(page, path, name);
  return { context, page, sheet };
}

/** Comes by a link in a page that is there. */
export async function joinIn(page: Page, path: string, name: string): Promise<SheetPage> {
  await page.goto(path);
  await page.getByLabel('Your name').fill(name);
  await page.getByRole('button', { name: 'Open the sheet' }).click();
  await page.waitForURL('**/sheets/*');
  const opened = new SheetPage(page);
  await opened.isLive();
  return opened;
}

let made = 0;

/** An account of its own for a test, signed in where the request comes from. */
export async function signUp(
  request: APIRequestContext,
  name: string,
): Promise<{ readonly email: string; readonly password: string }> {
  const account = { email: `${name.toLowerCase()}.${Date.now()}.${++made}@example.org`, password: 'a long password' };
  expect((await request.post('/api/sign-up', { data: { ...account, name } })).status()).toBe(201);
  expect((await request.post('/api/sign-in', { data: account })).status()).toBe(200);
  return account;
}
