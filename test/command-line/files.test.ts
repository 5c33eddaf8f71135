import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { auxesis, data, file, folder, rule, rules } from './run-command';

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
      for (const rulesAlone of [`${to}.rules.json`, 'rules.json']) {
        expect(auxesis(['convert', to, rulesAlone]).status).toBe(0);
        expect(matchedIn([data, rulesAlone])).toEqual(['B2', 'B6']);
      }
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
