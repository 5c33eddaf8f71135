import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import { strToU8, zipSync } from 'fflate';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

const file = (name: string, content: string) => ({
  name,
  mimeType: 'application/octet-stream',
  buffer: Buffer.from(content),
});
const rows = (count: number) =>
  Array.from({ length: count }, (_, at) => `Alder Weir ${at};${(at % 28) + 1}/3/2026;${at % 10},5;00${at}`).join('\n');

const LOW = {
  id: 'low',
  name: 'Low oxygen',
  reads: { fields: ['Oxygen'] },
  when: { kind: 'compare', is: '<', to: 5 },
  paints: 'cell',
  look: { fill: '#f7d3c8' },
};

async function bringIn(page: Page): Promise<SheetPage> {
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await page.waitForURL('**/sheets/*');
  const opened = new SheetPage(page);
  await opened.isLive();
  return opened;
}

test('a file is looked at before anything is kept, read otherwise, and becomes a sheet', async ({ page }) => {
  await page.goto('/');
  await page
    .getByLabel('File to import')
    .setInputFiles(file('Autumn.csv', `Oakfield School;;;\nStation;Day;Oxygen;Code\n${rows(40)}\n`));
  await expect(page.getByRole('heading', { name: 'Preview of “Autumn.csv”' })).toBeVisible();
  await expect(page.getByText('42 rows, 4 fields')).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Separator', exact: true })).toHaveValue('Semicolon');
  await expect(page.getByRole('combobox', { name: 'Decimal separator' })).toHaveValue(/Comma/);
  await expect(page.getByRole('columnheader', { name: /Code.*codes: kept as text/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Row 2 is the header' })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('combobox', { name: 'Type of Code' }).click();
  await page.getByRole('option', { name: 'Skip' }).click();
  await expect(page.getByText('1 of 4 fields are left out, as you chose')).toBeVisible();
  await page.getByLabel('Name of the sheet').fill('Autumn readings');
  const sheet = await bringIn(page);
  await expect(page.getByRole('heading', { name: 'Autumn readings' })).toBeVisible();
  await expect(sheet.cell('A1')).toContainText('Oakfield School');
  await expect(sheet.cell('C3')).toContainText('0.5');
  await expect(sheet.cell('B3')).toContainText('2026-03-01');
  await expect(sheet.cell('D2')).toHaveCount(0);
});

test('all sheets of a workbook are imported at once; a blank one is reported, and left out', async ({ page }) => {
  const names = ['office:1.0', 'table:1.0', 'text:1.0']
    .map((each) => `xmlns:${each.slice(0, -4)}="urn:oasis:names:tc:opendocument:xmlns:${each}"`)
    .join(' ');
  const row = (...cells: readonly string[]) =>
    `<table:table-row>${cells.map((cell) => `<table:table-cell office:value-type="string"><text:p>${cell}</text:p></table:table-cell>`).join('')}</table:table-row>`;
  const table = (name: string, ...found: readonly string[]) =>
    `<table:table table:name="${name}">${found.join('')}</table:table>`;
  const tables = [
    table('Blank'),
    table('Autumn', row('Station', 'Crew'), row('Alder Weir', 'Minnow group')),
    table('Spring', row('Station', 'Crew'), row('Birch Ford', 'Tuesday crew'), row('Elm Pool', 'Ines Calder')),
  ];
  const content = `<office:document-content ${names} office:version="1.2"><office:body><office:spreadsheet>${tables.join('')}</office:spreadsheet></office:body></office:document-content>`;
  const bytes = zipSync({
    mimetype: [strToU8('application/vnd.oasis.opendocument.spreadsheet'), { level: 0 }],
    'content.xml': strToU8(content),
  });
  await page.goto('/');
  await page
    .getByLabel('File to import')
    .setInputFiles({ name: 'Terms.ods', mimeType: 'application/octet-stream', buffer: Buffer.from(bytes) });
  // The first sheet with something in it is shown.
  await expect(page.getByText('2 rows, 2 fields')).toBeVisible();
  await page.getByRole('combobox', { name: 'Sheet in the file' }).click();
  await page.getByRole('option', { name: 'Blank' }).click();
  await expect(page.getByText('this one is empty')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeDisabled();
  await page.getByRole('button', { name: 'Import all 3 sheets' }).click();
  await expect(page.getByRole('link', { name: /Terms: Autumn.*1 record/ })).toBeVisible();
  await expect(page.getByRole('link', { name: /Terms: Spring.*2 records/ })).toBeVisible();
  expect(await sheetsCalled(page, 'Terms: Blank')).toBe(0);
});

/** How many sheets there are of these names. */
async function sheetsCalled(page: Page, ...names: readonly string[]): Promise<number> {
  const sheets = (await (await page.request.get('/api/sheets')).json()) as { readonly name: string }[];
  return sheets.filter(({ name }) => names.includes(name)).length;
}

test('rows are pasted and dropped; what cannot be read says why; what is left leaves nothing behind', async ({
  page,
}) => {
  await page.goto('/');
  const paste = () =>
    page.evaluate(() => {
      const data = new DataTransfer();
      data.setData('text/plain', 'Station\tOxygen\nAlder Weir\t4.9\n');
      document.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
    });
  // Until the page is live.
  await expect(async () => {
    await paste();
    await expect(page.getByText('2 rows, 2 fields')).toBeVisible({ timeout: 1500 });
  }).toPass();
  await page.getByRole('button', { name: 'Cancel' }).click();
  const zone = page.getByRole('region', { name: 'Import a file' });
  const data = await page.evaluateHandle(() => {
    const transfer = new DataTransfer();
    transfer.items.add(new File(['[{"Station": {"name": "Alder"}}]'], 'nested.json'));
    return transfer;
  });
  await zone.dispatchEvent('drop', { dataTransfer: data });
  await expect(page.getByRole('alert', { name: 'This file cannot be read' })).toContainText(
    'Record 1: "Station" holds an object',
  );
  await page.getByRole('button', { name: 'Back to the sheets' }).click();
  expect(await sheetsCalled(page, 'Pasted rows', 'nested')).toBe(0);
});

test('a file too large for the memory of the device is told before the import', async ({ page }) => {
  // 0.25 GB is the least that browsers tell (Device Memory, W3C).
  await page.addInitScript(() => Object.defineProperty(navigator, 'deviceMemory', { value: 0.25 }));
  await page.goto('/');
  const choose = (rows: number) =>
    page.getByLabel('File to import').setInputFiles({
      name: 'wide.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(`${'1,'.repeat(99)}1\n`.repeat(rows)),
    });
  await choose(17_000);
  const warning = page.getByRole('alert', { name: 'Too large for this device' });
  await expect(warning).toContainText('takes about 68 MB of memory, and a page has about 62 MB');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await choose(100);
  await expect(page.getByRole('button', { name: 'Import', exact: true })).toBeVisible();
  await expect(warning).toHaveCount(0);
});

test('a large file shows how far it is, and stopping leaves nothing behind', async ({ page }) => {
  await page.goto('/');
  await page
    .getByLabel('File to import')
    .setInputFiles(file('Large.csv', `Station;Day;Oxygen;Code\n${rows(60_000)}\n`));
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('progressbar')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('region', { name: 'Import a file' })).toBeVisible();
  await page.waitForTimeout(1500);
  expect(await sheetsCalled(page, 'Large')).toBe(0);
});

test('a sheet is taken out as files of every kind, the report says what each does not say, and they come back', async ({
  page,
}) => {
  const id = await makeSheet(page, [
    ['Station', 'Oxygen', 'Twice'],
    ['Alder Weir', '4.9', '=B2*2'],
    ["'=not a formula", '8.1', '=B3*2'],
  ]);
  const sheet = await SheetPage.open(page, id);
  await sheet.type('D2', '-risky');
  await page.getByRole('button', { name: 'Files' }).click();
  const out = async (words: RegExp): Promise<Buffer> => {
    await page.getByRole('radio', { name: words }).click();
    const download = page.waitForEvent('download');
    await page.getByRole(words.source === 'Archive' ? 'link' : 'button', { name: 'Export' }).click();
    return readFileSync(await (await download).path());
  };
  const shown = (await out(/CSV/)).toString();
  expect(shown).toBe("Station,Oxygen,Twice,\r\nAlder Weir,4.9,9.8,'-risky\r\n'=not a formula,8.1,16.2,\r\n");
  await page.getByRole('radio', { name: /As typed/ }).click();
  expect((await out(/CSV/)).toString()).toContain("Alder Weir,4.9,=B2*2,'-risky\r\n");
  const records = JSON.parse((await out(/JSON records/)).toString()) as { records: { values: object }[] };
  expect(records.records[0]!.values).toMatchObject({ Station: 'Alder Weir', Oxygen: 4.9, Twice: 9.8 });
  await page.getByRole('tab', { name: 'Rules' }).click();
  await page
    .getByLabel('Rule file')
    .setInputFiles(file('rules.json', JSON.stringify({ format: 'auxesis-rules', version: 1, rules: [LOW] })));
  await expect(page.getByRole('region', { name: 'Imported rules' })).toContainText('Low oxygen');
  await page.getByRole('tab', { name: 'Export' }).click();
  expect(JSON.parse((await out(/Rules only/)).toString())).toMatchObject({
    rules: [{ name: 'Low oxygen', reads: { fields: ['Oxygen'] }, when: LOW.when }],
  });
  const workbook = await out(/29500/);
  await expect(page.getByRole('region', { name: 'What is in the file' })).toBeVisible();
  const document = await out(/26300/);
  const archive = await out(/Archive/);
  for (const [name, bytes] of [
    ['Back.xlsx', workbook],
    ['Back.ods', document],
    ['Back.auxesis', archive],
  ] as const) {
    await page.goto('/');
    await page
      .getByLabel('File to import')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer: bytes });
    await expect(page.getByText('Nothing is left out')).toBeVisible();
    await expect(page.getByRole('heading', { name: '1 rule' })).toBeVisible();
    const again = await bringIn(page);
    await expect(again.cell('C2')).toContainText('9.8');
    await again.cell('C2').click();
    await expect(again.line).toHaveValue('=B2*2');
  }
});

test('a sheet is refreshed from a newer file by a key field, as one change that is shown before', async ({ page }) => {
  const id = await makeSheet(page, [
    ['Station', 'Oxygen', 'Twice'],
    ['Alder Weir', '4.9', '=B2*2'],
    ['Birch Ford', '8.10', '=B3*2'],
    ['Cedar Sluice', '7', '=B4*2'],
  ]);
  const sheet = await SheetPage.open(page, id);
  await page.getByRole('button', { name: 'Files' }).click();
  await page.getByRole('tab', { name: 'Update from file' }).click();
  await page
    .getByLabel('File with newer values', { exact: true })
    .setInputFiles(file('newer.csv', 'Oxygen,Station,Extra\n5.5,ALDER WEIR,x\n8.1,Birch Ford,y\n9,Dipper Bridge,z\n'));
  const different = page.getByRole('region', { name: 'Differences' });
  await expect(page.getByText('this sheet has no such field: Extra')).toBeVisible();
  // The station distinguishes the records: oxygen is measured, though it too differs in each.
  await expect(page.getByRole('checkbox', { name: 'Station' })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: 'Oxygen' })).not.toBeChecked();
  await expect(different).toContainText('1 changed cell, 1 new record, 0 deleted records');
  await expect(different.getByRole('row', { name: 'Alder Weir Oxygen 4.9 5.5' })).toBeVisible();
  await page.getByRole('switch', { name: 'Delete records that are not in the file' }).check();
  await expect(different).toContainText('1 deleted record');
  await page.getByRole('button', { name: 'Update the sheet' }).click();
  await expect(different).toContainText('Done');
  await page.keyboard.press('Escape');
  await expect(sheet.cell('B2')).toContainText('5.5');
  await expect(sheet.cell('C2')).toContainText('11');
  // Equal values stay as they were typed.
  await expect(sheet.cell('B3')).toContainText('8.10');
  await expect(sheet.cell('A4')).toContainText('Dipper Bridge');
  await sheet.actions.getByRole('button', { name: /^Undo/ }).click();
  await expect(sheet.cell('B2')).toContainText('4.9');
  await expect(sheet.cell('A4')).toContainText('Cedar Sluice');
});
