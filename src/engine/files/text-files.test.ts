import { expect, test } from 'vitest';
import type { ReadingChange } from '../../protocol/import-messages';
import { openFile } from './open-file';

/** The rows that a file would become, by label, after some settings. */
async function brought(content: BlobPart, name = 'readings.csv', ...changes: readonly ReadingChange[]) {
  const file = await openFile(new File([content], name), () => {});
  for (const change of changes) await file.change(change, () => {});
  let text = '';
  for await (const lines of file.lines('Readings', () => {})) text += lines;
  const [, ...lines] = text
    .trim()
    .split('\n')
    .map(
      (line) => JSON.parse(line) as { row?: { role: string; cells: Record<string, string> }; end?: { rows: number } },
    );
  return {
    preview: file.preview(),
    rows: lines.flatMap(({ row }) => (row ? [[row.role, ...Object.values(row.cells)]] : [])),
    end: lines.at(-1)!.end,
  };
}

const utf16 = (text: string) =>
  new Uint8Array(Uint16Array.from([...text].map((letter) => letter.charCodeAt(0))).buffer);
const windows1252 = (text: string) => Uint8Array.from([...text].map((letter) => letter.charCodeAt(0)));
const TEXT = 'Café,Tag\nWrenföld,7\n';

test.each([
  ['utf-8', TEXT],
  ['utf-8', `\ufeff${TEXT}`],
  ['utf-16le', utf16(`\ufeff${TEXT}`)],
  ['utf-16le', utf16('a,b\nplain letters,7\n')],
  ['windows-1252', windows1252(TEXT)],
])('%s is found and read', async (encoding, content) => {
  const { preview, rows } = await brought(content as BlobPart);
  expect(preview.form).toMatchObject({ encoding, separator: ',' });
  if (preview.fields[0]!.label.startsWith('Caf'))
    expect(rows).toEqual([
      ['header', 'Café', 'Tag'],
      ['record', 'Wrenföld', '7'],
    ]);
  else expect(rows[1]).toEqual(['record', 'plain letters', '7']);
});

// RFC 4180, section 2, with the separators of common practice.
test.each([',', ';', '\t', '|'])('the separator %j is found, quotes around what holds it', async (separator) => {
  const { preview, rows } = await brought(
    ['Name', 'Note'].join(separator) + `\r\nA${separator}"x${separator}""y""\r\nz"\r\n`,
  );
  expect(preview.form!.separator).toBe(separator);
  expect(rows[1]).toEqual(['record', 'A', `x${separator}"y"\nz`]);
});

test('decimal commas, groups and the order of day and month are found from what can only be read so', async () => {
  const { preview, rows } = await brought('Ort;Wert;Tag\nA;1.234,5;8/3/2026\nB;0,25;13/3/2026\nC;-3,5 %;1/4/2026\n');
  expect(preview.reading).toMatchObject({ decimal: ',', dates: 'dmy' });
  expect(rows.slice(1)).toEqual([
    ['record', 'A', '1234.5', '2026-03-08'],
    ['record', 'B', '0.25', '2026-03-13'],
    ['record', 'C', '-3.5%', '2026-04-01'],
  ]);
});

test('codes keep their zeros and digits, formulas follow their rows, and rows above the labels are titles', async () => {
  const { preview, rows } = await brought('Kit list\n\nCode,Long,Twice\n007,12345678901234567,=A4&"x"\n042,2,\n');
  expect(preview.header).toBe(2);
  expect(preview.fields[0]).toMatchObject({ as: 'text', kind: 'codes' });
  expect(rows).toEqual([
    ['title', 'Kit list'],
    ['title'],
    ['header', 'Code', 'Long', 'Twice'],
    ['record', "'007", "'12345678901234567", '=⟦f1⟧&"x"'],
    ['record', "'042", "'2"],
  ]);
});

test('what was guessed can be set otherwise, and a field left out', async () => {
  const { rows } = await brought(
    'a,b\n1,=1+1\n',
    'x.csv',
    { header: null },
    { formulas: false },
    { as: { column: 0, as: 'nothing' } },
  );
  expect(rows).toEqual([
    ['record', 'b'],
    ['record', "'=1+1"],
  ]);
});

test('rows of different lengths keep all their cells', async () => {
  const { preview, rows, end } = await brought('a,b\n1\n1,2,3\n');
  expect(preview.fields.map(({ label }) => label)).toEqual(['a', 'b', 'C']);
  expect(rows.at(-1)).toEqual(['record', '1', '2', '3']);
  expect(end).toEqual({ rows: 3, changes: 0 });
});

test('JSON records and JSON Lines are read alike', async () => {
  const records = [
    { Station: 'Alder Weir', Oxygen: 4.9, Good: true },
    { Station: 'Birch Ford', Note: '2026-03-08' },
  ];
  const expected = [
    ['header', 'Station', 'Oxygen', 'Good', 'Note'],
    ['record', 'Alder Weir', '4.9', 'TRUE'],
    ['record', 'Birch Ford', '2026-03-08'],
  ];
  expect((await brought(JSON.stringify(records), 'a.json')).rows).toEqual(expected);
  expect((await brought(records.map((record) => JSON.stringify(record)).join('\n'), 'a.jsonl')).rows).toEqual(expected);
});
