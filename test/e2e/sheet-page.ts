import { expect, type Locator, type Page } from '@playwright/test';
import { generateNKeysBetween } from 'fractional-indexing';
import { newField } from '../../src/core/sheet/field';
import { packedRows } from '../support/packed-rows';

/** A sheet in the browser, as a person uses it. */
export class SheetPage {
  readonly grid: Locator;
  readonly legend: Locator;
  readonly bench: Locator;
  readonly actions: Locator;
  /** The content line of the selected cell. */
  readonly line: Locator;

  constructor(readonly page: Page) {
    this.grid = page.getByRole('grid');
    this.legend = page.getByRole('navigation', { name: 'Legend' });
    this.actions = page.getByRole('toolbar', { name: 'Actions' });
    this.line = page.getByLabel('Content of the selected cell');
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
    await this.enter(text, 'Enter');
  }

  /** Types over the selected cell: its first letter as a key, the rest at once, as an input method does. */
  private async enter(text: string, end: 'Enter' | 'Tab'): Promise<void> {
    await this.page.keyboard.type(text.slice(0, 1));
    await this.page.keyboard.insertText(text.slice(1));
    await this.page.keyboard.press(end);
  }

  /** Types texts into cells one under another. */
  async typeDown(address: string, ...texts: readonly string[]): Promise<void> {
    await this.cell(address).click();
    for (const text of texts) await this.enter(text, 'Enter');
  }

  /** Types texts into cells one beside another. */
  async typeAcross(address: string, ...texts: readonly string[]): Promise<void> {
    await this.cell(address).click();
    for (const text of texts) await this.enter(text, 'Tab');
  }

  async select(from: string, to: string): Promise<void> {
    await this.cell(from).click();
    await this.cell(to).click({ modifiers: ['Shift'] });
  }

  /** Goes to a range or name by typing it. */
  async goTo(where: string): Promise<void> {
    await this.page.getByLabel('Go to a cell').fill(where);
    await this.page.getByLabel('Go to a cell').press('Enter');
  }

  /** Chooses from a menu of the action bar. */
  async menu(button: string, item: string | RegExp): Promise<void> {
    await this.actions.getByRole('button', { name: button }).click();
    await this.page.getByRole('menuitem', { name: item, exact: true }).click();
    // While it fades away it lies over the cells.
    await expect(this.page.getByRole('menu')).toHaveCount(0);
  }

  async act(name: string): Promise<void> {
    await this.page.getByRole('button', { name, exact: true }).click();
  }

  /** Drags the mouse from a point of one cell to a point of another, as shares of their boxes. */
  async drag(
    from: string,
    to: string,
    at: { readonly from: [number, number]; readonly to: [number, number] },
  ): Promise<void> {
    const point = async (address: string, [x, y]: [number, number]) => {
      const box = (await this.cell(address).boundingBox())!;
      return [box.x + box.width * x, box.y + box.height * y] as const;
    };
    await this.page.mouse.move(...(await point(from, at.from)));
    await this.page.mouse.down();
    await this.page.mouse.move(...(await point(to, at.to)), { steps: 6 });
    await this.page.mouse.up();
  }

  /** Fills the selection on by its handle, which is at the corner of its last cell. */
  async fillTo(last: string, to: string): Promise<void> {
    const box = (await this.cell(last).boundingBox())!;
    await this.drag(last, to, { from: [1 - 1.5 / box.width, 1 - 1.5 / box.height], to: [0.5, 0.5] });
  }

  /** What an area shows, row by row. */
  async texts(columns: string, from: number, to: number): Promise<string[][]> {
    const rows: string[][] = [];
    for (let row = from; row <= to; row++)
      rows.push(
        await Promise.all([...columns].map(async (column) => (await this.cell(`${column}${row}`).textContent()) ?? '')),
      );
    return rows;
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
    await this.entry(name).getByRole('button', { name: 'Actions for' }).click();
    await this.page.getByRole('menuitem', { name: item, exact: true }).click();
  }

  /** Begins a rule over the field of a cell, from what is offered there. */
  async beginRule(address: string, offer: RegExp): Promise<void> {
    await this.cell(address).click();
    await this.page.keyboard.press('Alt+r');
    const offers = this.page.getByRole('dialog', { name: 'New rule' });
    // Some are offered as a common job and as a kind: the last is the kind.
    await offers.getByRole('button', { name: offer }).last().click();
    await expect(offers).toHaveCount(0);
    await expect(this.bench).toBeVisible();
  }

  async keepRule(): Promise<void> {
    await this.bench.getByRole('button', { name: 'Save rule' }).click();
    await this.leaveBench();
  }

  async leaveBench(): Promise<void> {
    await this.bench.getByRole('button', { name: 'Done' }).click();
    await expect(this.bench).toBeHidden();
  }

  /** Saves rules in words, while a cell is selected. */
  async say(words: string): Promise<void> {
    await this.page.keyboard.press('Alt+r');
    await this.page.getByRole('combobox', { name: 'Say it in words' }).fill(words);
    await this.page.keyboard.press('Enter');
    await expect(this.page.getByRole('dialog', { name: 'New rule' })).toHaveCount(0);
  }

  async pickLook(label: string, name: string): Promise<void> {
    await this.bench.getByRole('button', { name: `${label}:` }).click();
    await this.page.getByRole('dialog', { name: label }).getByRole('button', { name, exact: true }).click();
    await this.page.keyboard.press('Escape');
    await expect(this.page.getByRole('dialog')).toHaveCount(0);
  }

  /** Cells of a column that a rule paints. */
  async paintedBy(rule: string, column: string, rows: readonly number[]): Promise<string[]> {
    const addresses = rows.map((row) => `${column}${row}`);
    const names = await Promise.all(addresses.map((address) => this.cell(address).getAttribute('data-rules')));
    return addresses.filter((_, at) => names[at]?.includes(rule));
  }

  /** Replaces an underlined word by another. */
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
  // One change for all, by the way that programs take.
  const ids = await rowIds(page, id);
  const cells = rows.flatMap((texts, position) =>
    texts.map((input, column) => ({ row: ids[position], field: `f${column + 1}`, input })),
  );
  const change = await page.request.post(`/api/sheets/${id}/changes`, {
    data: { id: `setup-${made}`, operations: [...moreFields(rows), { kind: 'set-cells', cells }] },
  });
  expect(change.status()).toBe(200);
  return id;
}

/** A new sheet has so many fields. */
const FIELDS = 12;

/** The operation that adds the fields that a wider table needs. */
function moreFields(rows: readonly (readonly string[])[]): object[] {
  const width = Math.max(FIELDS, ...rows.map((texts) => texts.length));
  const keys = generateNKeysBetween(null, null, FIELDS);
  const fields = generateNKeysBetween(keys.at(-1)!, null, width - FIELDS).map((key, at) =>
    newField(`f${FIELDS + at + 1}`, key),
  );
  return fields.length > 0 ? [{ kind: 'put-fields', fields }] : [];
}

const rowIds = async (page: Page, id: string): Promise<string[]> =>
  packedRows(await (await page.request.get(`/api/sheets/${id}/packed`)).body());
