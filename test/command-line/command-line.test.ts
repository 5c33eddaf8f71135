import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'auxesis-cli-'));
afterAll(() => rmSync(folder, { recursive: true }));

const file = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return name;
};
/** Runs the command in a folder that is not the project's. */
const auxesis = (args: readonly string[], input?: string) =>
  spawnSync(join(root, 'bin/auxesis'), args, { cwd: folder, input, encoding: 'utf8' });

const data = file(
  'data.csv',
  'Station,Dissolved oxygen,Planned\nAlder,4.9,5\nBirch,5,5\nCedar,,5\nDipper,sensor error,5\nElm,4,9\n',
);
const rule = {
  id: 'low-oxygen',
  name: 'Low oxygen',
  reads: { fields: ['dissolved  OXYGEN'] },
  when: { kind: 'compare', is: '<', to: 5 },
  paints: 'cell',
  look: { fill: '#ffe3a3', bold: true },
};
const rules = (...list: readonly object[]) => JSON.stringify({ format: 'auxesis-rules', version: 1, rules: list });

describe('evaluate', () => {
  test('prints what each rule matched and the look of each painted cell', () => {
    const { status, stdout, stderr } = auxesis(['evaluate', data, '-'], rules(rule));
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
    const painted = { look: { fill: '#ffe3a3', bold: true }, from: { fill: 'low-oxygen', bold: 'low-oxygen' } };
    expect(JSON.parse(stdout)).toEqual({
      rules: [{ id: 'low-oxygen', matched: ['B2', 'B6'], outcomes: null, problem: null }],
      cells: { B2: painted, B6: painted },
    });
  });

  test('gives outcomes by cell, and the problem of a rule beside the work of the others', () => {
    const bands = {
      id: 'bands',
      reads: { cells: 'B2:B6' },
      when: { kind: 'bands', cuts: [{ field: 'Planned', times: 0.9 }], looks: [{ bold: true }, null] },
    };
    const missing = { ...rule, id: 'missing', reads: { fields: ['Nitrate'] } };
    const report = JSON.parse(auxesis(['evaluate', data, '-'], rules(bands, missing)).stdout) as {
      rules: object[];
      cells: object;
    };
    expect(report.rules).toEqual([
      { id: 'bands', matched: ['B2', 'B3', 'B6'], outcomes: { B2: 1, B3: 1, B6: 0 }, problem: null },
      {
        id: 'missing',
        matched: [],
        outcomes: null,
        problem: { code: 'missing-field', message: expect.stringContaining('Nitrate') as string },
      },
    ]);
    expect(Object.keys(report.cells)).toEqual(['B6']);
  });

  test('reads data from standard input, and without a header', () => {
    const path = file('letters.json', rules({ ...rule, reads: { fields: ['B'] } }));
    const { stdout } = auxesis(['evaluate', '-', path, '--no-header'], 'x,4\ny,6\n');
    expect((JSON.parse(stdout) as { rules: { matched: string[] }[] }).rules[0]!.matched).toEqual(['B1']);
  });

  test('takes the moment to judge by', () => {
    const { status } = auxesis(
      ['evaluate', data, '-', '--now', '2026-03-08T12:00:00+01:00', '--zone', 'Europe/Lisbon', '--week', 'sunday'],
      rules(rule),
    );
    expect(status).toBe(0);
  });

  test('ends with 1 where the rule to fail by matches anything, and prints all the same', () => {
    const { status, stdout } = auxesis(['evaluate', data, '-', '--fail-if', 'low-oxygen'], rules(rule));
    expect([status, stdout.length > 0]).toEqual([1, true]);
    expect(
      auxesis(
        ['evaluate', data, '-', '--fail-if', 'high'],
        rules({ ...rule, id: 'high', when: { kind: 'compare', is: '>', to: 99 } }),
      ).status,
    ).toBe(0);
  });

  test('saved looks are looked up', () => {
    const text = JSON.stringify({
      format: 'auxesis-rules',
      version: 1,
      looks: { alarm: { fill: '#111111', bold: true } },
      rules: [{ ...rule, look: { look: 'alarm', bold: false } }],
    });
    const { cells } = JSON.parse(auxesis(['evaluate', data, '-'], text).stdout) as {
      cells: Record<string, { look: object }>;
    };
    expect(cells.B2!.look).toEqual({ fill: '#111111', bold: false });
  });
});

test('explain prints the trace of a cell', () => {
  const { status, stdout } = auxesis(['explain', data, '-', 'b3'], rules(rule));
  expect(status).toBe(0);
  expect(JSON.parse(stdout)).toMatchObject([
    { rule: 'low-oxygen', state: 'not-matched', cell: 'B3', compared: '5 is below 5', set: {} },
  ]);
});

describe('bad input ends with 2, one plain line, and nothing on standard output', () => {
  const bad = (name: string, change: object) => ({
    name,
    args: ['evaluate', data, '-'],
    input: rules({ ...rule, ...change }),
  });
  test.each([
    { ...bad('an unknown kind', { when: { kind: 'compere' } }), says: 'rules[0].when.kind must be one of' },
    { ...bad('an unknown key', { colour: 1 }), says: 'rules[0].colour is not allowed' },
    {
      ...bad('a word where a number belongs', { when: { kind: 'average', is: 'above', deviations: '1' } }),
      says: 'rules[0].when.deviations must be a number',
    },
    { ...bad('a bad colour', { look: { fill: 'yellow' } }), says: 'must be a colour such as' },
    { ...bad('a look that is not there', { look: { look: 'gone' } }), says: 'the look "gone"' },
    {
      ...bad('one end of two', { when: { kind: 'compare', is: 'between', to: 3 } }),
      says: 'rules[0].when.to must be an array',
    },
    {
      ...bad('looks that do not fit the cuts', { when: { kind: 'bands', cuts: [1, 2], looks: [null] } }),
      says: 'looks must have 3 entries',
    },
    { name: 'equal ids', args: ['evaluate', data, '-'], input: rules(rule, rule), says: 'ids must differ' },
    {
      name: 'another format',
      args: ['evaluate', data, '-'],
      input: '{"format":"x","version":1,"rules":[]}',
      says: 'format must be',
    },
    { name: 'broken JSON', args: ['evaluate', data, '-'], input: '{', says: 'standard input: not JSON' },
    {
      name: 'no such file',
      args: ['evaluate', 'gone.csv', '-'],
      input: rules(),
      says: 'gone.csv: there is no such file',
    },
    { name: 'a folder', args: ['evaluate', '.', '-'], input: rules(), says: 'this is a folder' },
    {
      name: 'a long row',
      args: ['evaluate', file('long.csv', 'a\n1,2\n'), '-'],
      input: rules(),
      says: 'long.csv, line 2',
    },
    {
      name: 'bytes that are not text',
      args: ['evaluate', data, file('bytes.json', Uint8Array.of(0x7b, 0xff, 0x7d))],
      input: '',
      says: 'not UTF-8',
    },
    { name: 'an unknown command', args: ['paint'], input: '', says: 'there is no command "paint"' },
    { name: 'an unknown option', args: ['evaluate', data, '-', '--loud'], input: '', says: "Unknown option '--loud'" },
    {
      name: 'a moment that is none',
      args: ['evaluate', data, '-', '--now', 'noon'],
      input: rules(),
      says: '--now is "noon"; expected a time',
    },
    {
      name: 'a zone that is none',
      args: ['evaluate', data, '-', '--zone', 'Wrenfold'],
      input: rules(),
      says: '--zone is "Wrenfold"',
    },
    {
      name: 'a separator that is none',
      args: ['evaluate', data, '-', '--separator', ':'],
      input: rules(),
      says: 'expected one of , ; | tab',
    },
    {
      name: 'a decimal sign that is none',
      args: ['evaluate', data, '-', '--decimal', ';'],
      input: rules(),
      says: 'expected . or ,',
    },
    {
      name: 'a day that is none',
      args: ['evaluate', data, '-', '--week', 'mon'],
      input: rules(),
      says: '--week is "mon"',
    },
    {
      name: 'JSON that is no table',
      args: ['evaluate', file('flat.json', '{"a":1}'), '-'],
      input: rules(),
      says: 'expected an array of objects',
    },
    {
      name: 'a list in a record',
      args: ['evaluate', file('deep.json', '[{"a":1},{"a":[2]}]'), '-'],
      input: rules(),
      says: 'record 2: "a" holds a list',
    },
    {
      ...bad('a pattern that is none', { when: { kind: 'text', is: 'pattern', any: ['('] } }),
      says: 'when.any[0] is not a pattern',
    },
    {
      ...bad('a formula that is none', { when: { kind: 'formula', formula: '=B2+' } }),
      says: 'expected a value at the end, character 5',
    },
    {
      name: 'a formula with a gap',
      args: ['calculate', '=SUM(1;2'],
      input: '',
      says: 'expected `)` at the end, character 9',
    },
    {
      name: 'no such rule to fail by',
      args: ['evaluate', data, '-', '--fail-if', 'x'],
      input: rules(rule),
      says: 'expected the id of a rule',
    },
    { name: 'too little', args: ['evaluate', data], input: '', says: 'there are no rules in it; give a rule file' },
    {
      name: 'a cell beyond the sheet',
      args: ['explain', data, '-', 'Z99'],
      input: rules(),
      says: 'there is no cell Z99',
    },
  ])('$name', ({ args, input, says }) => {
    const { status, stdout, stderr } = auxesis(args, input);
    expect(stderr).toContain(says);
    expect({ status, stdout, lines: stderr.trimEnd().split('\n').length }).toEqual({ status: 2, stdout: '', lines: 1 });
  });
});

test('a formula that is too much work is an error, at once', () => {
  const { status, stdout, stderr } = auxesis(['calculate', '=SUMPRODUCT([.A1:.A9999000]*[.A1:.Z1])']);
  expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
  expect(JSON.parse(stdout)).toMatchObject({
    type: 'error',
    value: '#LIMIT!',
    message: expect.stringContaining('too much work') as string,
  });
});

test('calculate gives a value with its type', () => {
  const value = (...args: string[]) => JSON.parse(auxesis(['calculate', ...args]).stdout) as unknown;
  expect(value('=1/2')).toEqual({ type: 'number', value: 0.5 });
  expect(value('1/0')).toEqual({ type: 'error', value: '#DIV/0!' });
  expect(value('=TODAY()', '--now', '2026-03-08T23:30:00Z', '--zone', 'Asia/Tokyo')).toEqual({
    type: 'date',
    value: '2026-03-09',
  });
  expect(value('=B3*2', '--data', data)).toEqual({ type: 'number', value: 10 });
});

test('advise prints its advice, with repairs in the words of files', () => {
  const { status, stdout } = auxesis(
    ['advise', data, '-'],
    rules(rule, { ...rule, id: 'second', reads: { fields: ['Dissolved oxygen'] } }),
  );
  expect(status).toBe(0);
  expect(JSON.parse(stdout)).toMatchObject([
    {
      code: 'never-seen',
      rules: ['second', 'low-oxygen'],
      cells: ['B2'],
      repair: [{ kind: 'put-rules', rules: [{ rule: { reads: { fields: ['Dissolved oxygen'] } } }] }],
    },
    { code: 'same-rule', rules: ['low-oxygen', 'second'], repair: [{ kind: 'remove-rules', rules: ['second'] }] },
  ]);
});

test('convert writes the same cells in another format, and back', () => {
  const [json, csv] = [join(folder, 'out.json'), join(folder, 'out.csv')];
  const typed = 'a,b\r\n"x, ""y""",007\r\n,1.5\r\n';
  const from = file('all.csv', typed);
  expect(auxesis(['convert', from, json])).toMatchObject({ status: 0, stdout: '' });
  expect(JSON.parse(readFileSync(json, 'utf8'))).toEqual([
    { a: 'x, "y"', b: '007' },
    { a: null, b: 1.5 },
  ]);
  auxesis(['convert', json, csv]);
  expect(readFileSync(csv, 'utf8')).toBe(typed);
});

test('files of other countries: their encoding is found, separator and decimals are printed', () => {
  const typed = file(
    'typed-1252.csv',
    Uint8Array.from('St\u00e9;Wert;Tag\n\u0093A\u0094;1.234,5;8/3/2026\n', (letter) => letter.charCodeAt(0)),
  );
  expect(auxesis(['convert', typed, 'pointed.csv', '--separator', ';', '--decimal', ','])).toMatchObject({
    status: 0,
    stderr: '',
  });
  expect(readFileSync(join(folder, 'pointed.csv'), 'utf8')).toBe('Sté,Wert,Tag\r\n“A”,1234.5,8/3/2026\r\n');
  auxesis(['convert', typed, 'pointed.auxesis', '--separator', ';', '--decimal', ',', '--dates', 'dmy']);
  auxesis(['convert', 'pointed.auxesis', 'dated.json']);
  expect(JSON.parse(readFileSync(join(folder, 'dated.json'), 'utf8'))).toEqual([
    { Sté: '“A”', Wert: 1234.5, Tag: '2026-03-08' },
  ]);
});

describe('convert carries the rules', () => {
  const given = file('given.rules.json', rules(rule));
  const matchedIn = (args: readonly string[]) =>
    (JSON.parse(auxesis(['evaluate', ...args]).stdout) as { rules: { matched: string[] }[] }).rules[0]!.matched;

  test.each(['carried.xlsx', 'carried.ods', 'carried.auxesis'])(
    'into %s, where they find the same cells, and out of it as a rule file',
    (to) => {
      expect(auxesis(['convert', data, to, '--rules', given])).toMatchObject({ status: 0, stdout: '' });
      expect(matchedIn([to])).toEqual(['B2', 'B6']);
      expect(auxesis(['convert', to, `${to}.rules.json`]).status).toBe(0);
      expect(matchedIn([data, `${to}.rules.json`])).toEqual(['B2', 'B6']);
      auxesis(['convert', to, `${to}.csv`]);
      expect(readFileSync(join(folder, `${to}.csv`), 'utf8').replaceAll('\r', '')).toBe(
        readFileSync(join(folder, data), 'utf8'),
      );
    },
  );

  test('an archive that was cut off is refused, in words', () => {
    auxesis(['convert', data, 'whole.auxesis']);
    const cut = file('cut.auxesis', readFileSync(join(folder, 'whole.auxesis')).subarray(0, 150));
    expect(auxesis(['evaluate', cut, given])).toMatchObject({
      status: 2,
      stdout: '',
      stderr: expect.stringContaining('cut off') as string,
    });
  });
});

describe('push', () => {
  interface Got {
    readonly path: string;
    readonly token: string | undefined;
    readonly body: { readonly key?: unknown; readonly records: readonly object[] };
  }
  /** The requests to a server while a command runs; it accepts everything, or refuses from the second request on. */
  async function pushed(args: readonly string[], refuses = false) {
    const got: Got[] = [];
    const server = createServer((request, response) => {
      let text = '';
      request.on('data', (piece: Buffer) => (text += piece.toString()));
      request.on('end', () => {
        const body = JSON.parse(text) as Got['body'];
        got.push({ path: request.url!, token: request.headers.authorization, body });
        const isRefused = refuses && got.length > 1;
        response
          .writeHead(isRefused ? 403 : 200)
          .end(
            JSON.stringify(
              isRefused ? { refused: 'no more' } : { inserted: body.records.length, updated: 0, unchanged: 0 },
            ),
          );
      });
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    const child = spawn(
      join(root, 'bin/auxesis'),
      ['push', ...args, '--url', `http://127.0.0.1:${port}`, '--token', 't'],
      { cwd: folder },
    );
    let [stdout, stderr] = ['', ''];
    child.stdout.on('data', (piece: Buffer) => (stdout += piece.toString()));
    child.stderr.on('data', (piece: Buffer) => (stderr += piece.toString()));
    const [status] = (await once(child, 'exit')) as [number];
    server.close();
    return { got, status, stdout, stderr };
  }

  test('sends what formulas give, dates as they are meant, and codes that stay codes', async () => {
    const typed = file('typed.csv', "Code,Day,Oxygen,Twice\n'007,8/3/2026,4.9,=C2*2\n,,,\nB,9/3/2026,,TRUE\n");
    const { got, status, stdout } = await pushed([
      typed,
      '--sheet',
      'pond',
      '--key',
      'Code',
      '--key',
      'Day',
      '--dates',
      'dmy',
    ]);
    expect({ status, stdout: JSON.parse(stdout) as object }).toEqual({
      status: 0,
      stdout: { inserted: 2, updated: 0, unchanged: 0 },
    });
    expect(got).toEqual([
      {
        path: '/api/v1/sheets/pond/records',
        token: 'Bearer t',
        body: {
          key: ['Code', 'Day'],
          records: [
            { Code: "'007", Day: '2026-03-08', Oxygen: 4.9, Twice: 9.8 },
            { Code: 'B', Day: '2026-03-09', Oxygen: null, Twice: true },
          ],
        },
      },
    ]);
  });

  test('sends many records in parts, and says what was entered before it failed', async () => {
    const many = file('many.csv', `Station\n${Array.from({ length: 1500 }, (_, at) => `S${at}`).join('\n')}\n`);
    const { got, status, stderr } = await pushed([many, '--sheet', 'pond'], true);
    expect(got.map(({ body }) => body.records.length)).toEqual([1000, 500]);
    expect({ status, stderr }).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('no more; the 1000 records before are entered') as string,
    });
  });

  test.each([
    [['data.csv', '--token', 't'], 'say with --sheet which sheet'],
    [['data.csv', '--sheet', 'x', '--url', 'nowhere'], 'expected an address'],
    [['data.csv', '--sheet', 'x'], 'there is no token'],
    [['data.csv', '--sheet', 'x', '--token', 't', '--url', 'http://127.0.0.1:9'], 'cannot be reached'],
  ])('%j is refused in words', (args, words) => {
    expect(auxesis(['push', ...args])).toMatchObject({
      status: 2,
      stdout: '',
      stderr: expect.stringContaining(words) as string,
    });
  });
});

test('says how it is used, and which version it is', () => {
  expect(auxesis(['--help']).stdout).toContain('auxesis evaluate DATA [RULES]');
  expect(auxesis(['--version']).stdout).toMatch(/^\d+\.\d+\.\d+\n$/);
});
