import { expect, type Locator, type Page } from '@playwright/test';

/** A sheet in the browser, as a person uses it. */
export class SheetPage {
  readonly grid: Locator;
  readonly legend: Locator;
  readonly bench: Locator;

  constructor(readonly page: Page) {
    this.grid = page.getByRole('grid');
    this.legend = page.getByRole('navigation', { name: 'Legend' });
    this.bench = page.getByRole('region', { name: 'Bench' });
  }

  static async open(page: Page, id: string): Promise<SheetPage> {
    const opened = new SheetPage(page);
    await page.goto(`/sheets/${id}`);
    await opened.isLive();
    return opened;
  }

  async isLive(): Promise<void> {
    await expect(this.page.getByTestId('link')).toHaveAccessibleName('Live, all saved', { timeout: 20_000 });
  }

  cell(address: string): Locator {
    return this.page.locator(`[data-address="${address}"]`);
  }

  /** Types into a cell and goes down with Enter. */
  async type(address: string, text: string): Promise<void> {
    await this.cell(address).click();
    await this.page.keyboard.type(text);
    await this.page.keyboard.press('Enter');
  }

  entry(name: string): Locator {
    return this.legend.getByRole('listitem').filter({ hasText: name });
  }

  count(name: string): Locator {
    return this.entry(name).getByTestId('count');
  }

  async openRule(name: string): Promise<void> {
    await this.entry(name).locator('button[aria-pressed]').click();
    await expect(this.bench).toBeVisible();
  }

  /** Chooses from the menu behind a legend entry. */
  async ruleMenu(name: string, item: string): Promise<void> {
    await this.entry(name).getByRole('button', { name: 'What to do with' }).click();
    await this.page.getByRole('menuitem', { name: item }).click();
  }

  /** Puts another word in the place of an underlined one. */
  async pick(label: string, option: string): Promise<void> {
    await this.bench.getByRole('button', { name: `${label}:` }).click();
    await this.page.getByRole('menuitem', { name: option, exact: true }).click();
  }
}

let made = 0;

/** A sheet of its own for a test: a header, then records, one list of texts a row. */
export async function makeSheet(page: Page, rows: readonly (readonly string[])[]): Promise<string> {
  const answer = await page.request.post('/api/sheets', { data: { name: `Test ${Date.now()} ${++made}` } });
  expect(answer.status()).toBe(201);
  const { id } = (await answer.json()) as { id: string };
  const sheet = await SheetPage.open(page, id);
  await sheet.cell('A1').click();
  // One change for all, by the way that programs take.
  const ids = await rowIds(page, id);
  const cells = rows.flatMap((texts, position) => texts.map((input, column) => ({ row: ids[position], field: `f${column + 1}`, input })));
  const change = await page.request.post(`/api/sheets/${id}/changes`, { data: { id: `setup-${made}`, operations: [{ kind: 'set-cells', cells }] } });
  expect(change.status()).toBe(200);
  return id;
}

async function rowIds(page: Page, id: string): Promise<string[]> {
  const packed = await page.request.get(`/api/sheets/${id}/packed`);
  const { gunzipSync } = await import('node:zlib');
  const bytes = gunzipSync(await packed.body());
  const head = JSON.parse(bytes.subarray(4, 4 + bytes.readUInt32LE(0)).toString()) as { rowIds: string[] };
  return head.rowIds;
}
