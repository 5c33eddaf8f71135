// Files made to do harm, or only broken: each is refused with words that say what is wrong, and little is read of it.
import { strToU8, zipSync } from 'fflate';
import { expect, test } from 'vitest';
import { BadFile } from '../../core/exchange/bad-file';
import { readWorkbook } from '../../core/exchange/workbook/read-workbook';
import { openFile } from './open-file';

const OPEN = {
  '[Content_Types].xml': strToU8('<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"/>'),
  '_rels/.rels': strToU8(
    '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>',
  ),
  'xl/workbook.xml': strToU8(
    '<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets><sheet name="One" sheetId="1" r:id="r1"/></sheets></workbook>',
  ),
  'xl/_rels/workbook.xml.rels': strToU8(
    '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet1.xml"/></Relationships>',
  ),
};
const sheet = (inside: string, before = '') =>
  zipSync({
    ...OPEN,
    'xl/worksheets/sheet1.xml': strToU8(
      `${before}<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">${inside}</worksheet>`,
    ),
  });
const document = (table: string, before = '') =>
  zipSync({
    mimetype: strToU8('application/vnd.oasis.opendocument.spreadsheet'),
    'content.xml': strToU8(
      `${before}<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0"><office:body><office:spreadsheet><table:table table:name="One">${table}</table:table></office:spreadsheet></office:body></office:document-content>`,
    ),
  });

const cell = (attributes = '') =>
  `<table:table-cell office:value-type="float" office:value="1" ${attributes}><text:p>1</text:p></table:table-cell>`;
const laughs = `<!DOCTYPE x [<!ENTITY a "ha">${'bcdefghij'
  .split('')
  .map((name, at) => `<!ENTITY ${name} "${`&${'abcdefghij'[at]};`.repeat(10)}">`)
  .join('')}]>`;

/** A packed file whose directory says that a part is as large as given. */
function claiming(bytes: Uint8Array, size: number): Uint8Array {
  const claimed = bytes.slice();
  const view = new DataView(claimed.buffer);
  for (let at = 0; at < claimed.length - 4; at++)
    if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, size, true);
  return claimed;
}

const WORKBOOKS: readonly (readonly [name: string, bytes: () => Uint8Array, words: string])[] = [
  [
    'a part that grows a thousand times',
    () => zipSync({ ...OPEN, 'xl/worksheets/sheet1.xml': new Uint8Array(40_000_000) }, { level: 9 }),
    'times when unpacked',
  ],
  [
    'parts that together are too large',
    () =>
      claiming(
        zipSync(
          Object.fromEntries(
            Array.from({ length: 60 }, (_, at) => [`${at}.bin`, crypto.getRandomValues(new Uint8Array(65_536))]),
          ),
          {
            level: 0,
          },
        ),
        12_000_000,
      ),
    'more than',
  ],
  [
    'too many parts',
    () => zipSync(Object.fromEntries(Array.from({ length: 2001 }, (_, at) => [`${at}.xml`, new Uint8Array(1)]))),
    'more than 2,000 parts',
  ],
  [
    'a part that points out of the file',
    () => zipSync({ ...OPEN, '../../etc/passwd': strToU8('x') }),
    'points out of the file',
  ],
  [
    'a part with a path from the root',
    () => zipSync({ ...OPEN, '/etc/passwd': strToU8('x') }),
    'points out of the file',
  ],
  ['a file that is cut off', () => sheet('<sheetData/>').slice(0, 300), 'cannot be unpacked'],
  [
    'entities that double and double',
    () => sheet('<sheetData><row><c><v>&j;</v></c></row></sheetData>', laughs),
    'document type',
  ],
  ['the same in a document', () => document('', laughs), 'document type'],
  [
    'an entity that reads a file',
    () => sheet('<sheetData/>', '<!DOCTYPE x [<!ENTITY a SYSTEM "file:///etc/passwd">]>'),
    'document type',
  ],
  ['broken XML', () => sheet('<sheetData><row></sheetData>'), 'not well-formed XML'],
  ['elements a thousand deep', () => sheet('<a>'.repeat(1000)), 'deep'],
  [
    '10,000 columns',
    () =>
      sheet(
        `<sheetData><row r="1">${Array.from({ length: 10_000 }, () => '<c><v>1</v></c>').join('')}</row></sheetData>`,
      ),
    'at most 1,000 fields',
  ],
  [
    'a cell at the far end',
    () => sheet('<sheetData><row r="1048576"><c r="A1048576"><v>1</v></c></row></sheetData>'),
    'at most 1,000,000',
  ],
  [
    'a cell repeated over all columns',
    () => document(`<table:table-row>${cell('table:number-columns-repeated="16384"')}</table:table-row>`),
    'at most 1,000 fields',
  ],
  [
    'a row repeated without end',
    () => document(`<table:table-row table:number-rows-repeated="2000000000">${cell()}</table:table-row>`),
    'at most 1,000,000',
  ],
  [
    'rows repeated to billions of cells',
    () =>
      document(
        `<table:table-row table:number-rows-repeated="900000">${cell('table:number-columns-repeated="900"')}</table:table-row>`,
      ),
    'more than 5,000,000 cells',
  ],
  ['a packed file of something else', () => zipSync({ 'readme.txt': strToU8('x') }), 'no workbook'],
];

test.each(WORKBOOKS)('a workbook with %s', (_, bytes, words) => {
  const began = process.memoryUsage().rss;
  const read = () => readWorkbook(bytes()).sheets.map((found) => found.read());
  expect(read).toThrow(BadFile);
  expect(read).toThrow(words);
  expect(process.memoryUsage().rss - began).toBeLessThan(500e6);
});

const TEXTS: readonly (readonly [name: string, file: string, content: () => string | Uint8Array, words: string])[] = [
  ['an empty file', 'a.csv', () => '', 'empty'],
  ['nothing but separators', 'a.csv', () => ',,\n,,\n', 'nothing in it'],
  ['a quote that is never closed', 'a.csv', () => `a,b\n"1,2\n${'x,y\n'.repeat(100)}`, 'never closed'],
  ['10,000 columns', 'a.csv', () => `${'x,'.repeat(10_000)}\n`, 'at most 1,000'],
  ['a cell without end', 'a.csv', () => `a\n${'x'.repeat(200_000)}\n`, 'at most 100,000'],
  ['a NUL', 'a.csv', () => 'a,b\n1,\0\n', 'NUL'],
  ['broken JSON', 'a.json', () => '[{"a": 1}', 'not JSON'],
  [
    'JSON with labels without end',
    'a.json',
    () => JSON.stringify(Array.from({ length: 1001 }, (_, at) => ({ [`l${at}`]: 1 }))),
    'labels',
  ],
  ['JSON that is no list', 'a.json', () => '{"a": 1}', 'array of objects'],
  ['a nested value', 'a.json', () => '[{"a": {"b": 1}}]', '"a" holds an object'],
  ['a broken line', 'a.jsonl', () => '{"a":1}\n{oops}\n', 'line 2'],
  // By the first bytes that their standards give: ISO/IEC 15948, ISO 32000, the HTML standard, XML 1.0; the older
  // workbook's from memory.
  ['a picture', 'a.csv', () => new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), 'it is a picture'],
  ['a PDF', 'a.csv', () => '%PDF-1.7\n1 0 obj', 'it is a PDF'],
  ['a page', 'a.csv', () => '<!DOCTYPE html><table><tr><td>1</td></tr></table>', 'page of HTML'],
  ['some XML', 'a.csv', () => '<?xml version="1.0"?><records/>', 'no document of ISO/IEC 26300'],
  [
    'an older workbook',
    'a.xls',
    () => new Uint8Array([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1]),
    'an older kind',
  ],
  [
    'an archive that is cut off',
    'a.auxesis',
    () => new Uint8Array([0x1f, 0x8b, 8, 0, 0, 0, 0, 0, 0, 3, 1, 2]),
    'cut off or damaged',
  ],
];

test.each(TEXTS)('a file with %s', async (...[, name, content, words]) => {
  const refused = await openFile(new File([content() as BlobPart], name), () => {}).catch((error: unknown) => error);
  expect(refused).toBeInstanceOf(BadFile);
  expect((refused as BadFile).told).toContain(words);
});
