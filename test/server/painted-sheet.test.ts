import type { Rule } from '../../src/core/rules/shape/rule';
import fc from 'fast-check';
import { gunzipSync, gzipSync } from 'node:zlib';
import { expect, test } from 'vitest';
import { NOTHING_OPEN } from '../../src/core/sharing/filling';
import type { Reader } from '../../src/core/sharing/role';
import type { Operation } from '../../src/core/sheet/change';
import type { Sheet } from '../../src/core/sheet/sheet';
import { OUTCOME_TIMES, type Filling } from '../../src/core/sheet/sheet-part';
import { openPainted } from '../../src/engine/replica/open-painted';
import type { Replica } from '../../src/engine/replica/replica';
import { SheetPacker } from '../../src/protocol/packed/packed-sheet';
import type { Repaint } from '../../src/protocol/packed/painted-sheet';
import { PaintedSheet } from '../../src/server/painter/painted-sheet';
import { anyOperation, anyRule, contentsOf, makeSheet } from '../support/arbitrary-sheet';
import { putRules, rulesOf } from '../../src/core/rules/shape/stored-rule';

const NOW = Date.UTC(2026, 2, 8, 12);

function packed(sheet: Sheet): Uint8Array {
  const packer = new SheetPacker({
    id: 'test',
    name: 'Test',
    settings: {},
    sequence: 0,
    fields: sheet.fields,
    rules: rulesOf(sheet),
    parts: [...sheet.parts.values()],
  });
  for (const slot of sheet.order) packer.add(sheet.storedRow(slot));
  return gzipSync(packer.pack());
}

/** A reader's page beside the sheet on the server, with all that was ever sent to it. */
class Reading {
  readonly sent: string[] = [];
  private readonly told: (Repaint | 'stale')[] = [];
  private readonly painted: PaintedSheet;
  private page: Replica;
  private sequence = 0;

  constructor(
    sheet: Sheet,
    private readonly reader: Reader,
  ) {
    this.painted = new PaintedSheet(packed(sheet), NOW, {
      repainted: (_, repaint) => this.told.push(repaint),
      wantsToTell: (afterMs) => void setTimeout(() => this.painted.tell(), afterMs),
      wantsPast: () => {},
    });
    this.page = this.open();
  }

  private open(): Replica {
    const bytes = gunzipSync(this.painted.paint('reader', { reader: this.reader, theme: 'light' }).packed);
    this.sent.push(bytes.toString('latin1'));
    return openPainted(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer,
      'light',
    ).replica;
  }

  change(operation: Operation): void {
    this.sequence++;
    this.painted.receive([
      { sequence: this.sequence, at: NOW, change: { id: `c${this.sequence}`, operations: [operation] } },
    ]);
    // Asking for the view sends everything first that waits.
    this.painted.paint('reader', { reader: this.reader, theme: 'light' });
    for (const repaint of this.told.splice(0)) {
      this.sent.push(JSON.stringify(repaint));
      if (repaint === 'stale') this.page = this.open();
      else if (repaint.revision > 0) this.page.repaint(repaint);
    }
  }

  /** What the page shows: what it holds, and each cell's look. */
  shown() {
    const { sheet } = this.page;
    const looks = sheet.order.map((slot) =>
      sheet.fields.map((_, column) => {
        const { properties, rules } = this.page.resolvedLook(column, slot);
        return { ...Object.fromEntries(properties), says: rules.map((name) => this.page.lookNames()[name]) };
      }),
    );
    return { ...contentsOf(sheet), looks };
  }
}

const own: fc.Arbitrary<Reader['own']> = fc.constantFrom<Reader['own']>(
  { fields: null, rows: null },
  { fields: ['f1'], rows: null },
  { fields: null, rows: ['r1', 'r2'] },
);
const anyReader = fc.record({ role: fc.constantFrom('filler' as const, 'viewer' as const), own });
const anyFilling: fc.Arbitrary<Filling> = fc
  .record({
    open: fc.subarray(['f1', 'f2']),
    openCells: fc.constantFrom([], [{ row: 'r3', field: 'f3' }]),
    kept: fc.constantFrom<string[]>([], ['f3']),
    outcomes: fc.constantFrom(...OUTCOME_TIMES),
    showsOthers: fc.boolean(),
  })
  .map((filling) => ({ ...NOTHING_OPEN, ...filling }));
const rules = fc.array(anyRule, { maxLength: 3 });

const dressed = (ruleSet: readonly Parameters<typeof stored>[0][], filling: Filling): Sheet => {
  const sheet = makeSheet();
  sheet.apply(putRules(ruleSet.map(stored)));
  sheet.apply({ kind: 'put-parts', parts: [filling] });
  return sheet;
};
const stored = (rule: Rule) => ({ id: rule.id, key: `a${rule.id}`, rule });

test('a reader receives a change of 200,000 entries', () => {
  const reading = new Reading(makeSheet(), { role: 'viewer', own: { fields: null, rows: null } });
  const cells = Array.from({ length: 200_000 }, (_, at) => ({ row: 'r0', field: 'f1', input: String(at) }));
  reading.change({ kind: 'set-cells', cells });
  expect(JSON.stringify(reading.shown())).toContain('199999');
});

test('the changes that a reader receives add up to what a fresh load gives', () => {
  fc.assert(
    fc.property(
      fc.record({
        reader: anyReader,
        filling: anyFilling,
        ruleSet: rules,
        operations: fc.array(anyOperation, { minLength: 1, maxLength: 6 }),
      }),
      ({ reader, filling, ruleSet, operations }) => {
        const sheet = dressed(ruleSet, filling);
        const reading = new Reading(sheet, reader);
        for (const operation of operations) {
          reading.change(operation);
          sheet.apply(operation);
        }
        expect(reading.shown()).toEqual(new Reading(sheet, reader).shown());
      },
    ),
    { numRuns: 250 },
  );
});

const SECRET = 'hush';
/** Formulas that would tell what is in the third field, at once or by way of another. */
const TELLING = [
  '=C3',
  '=C2&"!"',
  '=A3',
  '=INDIRECT("C"&3)',
  '=IF(C3<>"";C3;B2)',
  '=COUNTIF(C:C;"hush*")',
  '=LOOKUP(1;A:A;C:C)',
  '=Whispered',
  '=Three',
];

test('nothing of a field that fillers do not get is ever sent to one, whatever is entered, calculated or ruled', () => {
  const secret = fc.constantFrom(`${SECRET}-1`, `${SECRET}-2|${SECRET}-3`);
  const row = fc.integer({ min: 0, max: 9 }).map((n) => `r${n}`);
  const entry = fc.oneof(
    fc.record({ row, field: fc.constant('f3'), input: secret }),
    fc.record({ row, field: fc.constantFrom('f1', 'f2'), input: fc.constantFrom(...TELLING, '5', 'x') }),
  );
  const operation: fc.Arbitrary<Operation> = fc.oneof(
    {
      weight: 3,
      arbitrary: fc
        .array(entry, { minLength: 1, maxLength: 4 })
        .map((cells) => ({ kind: 'set-cells' as const, cells })),
    },
    fc.record({
      kind: fc.constant('insert-rows' as const),
      rows: secret.map((input) => [{ id: 'n1', key: 'a05', role: 'record' as const, cells: { f1: '=C3', f3: input } }]),
    }),
    fc.record({ kind: fc.constant('remove-rows' as const), rows: row.map((id) => [id]) }),
    rules.map((set) => putRules([...set, ...set.slice(0, 1)].map(stored))),
  );
  fc.assert(
    fc.property(
      fc.record({
        whose: own,
        filling: anyFilling,
        byKey: fc.boolean(),
        ruleSet: rules,
        operations: fc.array(operation, { minLength: 1, maxLength: 6 }),
      }),
      ({ whose, filling, byKey, ruleSet, operations }) => {
        // Kept by the owner, or because it holds the answers of a key, also of one that is off.
        const key = { ...stored({ ...anyKey, on: ruleSet.length % 2 === 0 }) };
        const sheet = dressed(ruleSet, { ...filling, kept: byKey ? [] : ['f3'] });
        if (byKey) sheet.apply(putRules([key]));
        const others = byKey ? operations.filter(({ kind }) => kind !== 'put-rules') : operations;
        for (const input of [`${SECRET}-0`])
          sheet.apply({
            kind: 'set-cells',
            cells: ['header', 'r0', 'r1', 'r2'].map((id) => ({ row: id, field: 'f3', input })),
          });
        sheet.apply({
          kind: 'put-parts',
          parts: [{ id: 'whispered', kind: 'name', name: 'Whispered', refersTo: '=$C$3' }],
        });
        const reading = new Reading(sheet, { role: 'filler', own: whose });
        for (const one of others) reading.change(one);
        const everything = reading.sent.join('\n');
        expect(everything).not.toContain(SECRET);
        expect(everything).not.toContain('"when"');
      },
    ),
    { numRuns: 250 },
  );
});

const anyKey = {
  id: 'key',
  name: 'Key',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: {
    kind: 'key' as const,
    expect: { field: 'f3' },
    near: 1,
    looks: { right: { fill: '#00aa00' }, wrong: { fill: '#aa0000' } },
  },
  paints: 'cell' as const,
};

test('of several who fill in, nobody is sent what others filled in, unless the owner shows it', () => {
  const marked = (input: string, row: string, field: string): Operation => ({
    kind: 'set-cells',
    cells: [{ row, field, input }],
  });
  for (const showsOthers of [false, true]) {
    const sheet = dressed([], { ...NOTHING_OPEN, open: ['f1', 'f2'], showsOthers });
    const byField = new Reading(sheet, { role: 'filler', own: { fields: ['f1'], rows: null } });
    const byRow = new Reading(sheet, { role: 'filler', own: { fields: null, rows: ['r1'] } });
    for (const reading of [byField, byRow]) {
      reading.change(marked('mine', 'r1', 'f1'));
      reading.change(marked('beside', 'r1', 'f2'));
      reading.change(marked('beneath', 'r2', 'f1'));
      reading.change(marked('=A4&B3', 'r5', 'f3'));
    }
    const has = (reading: Reading) =>
      ['mine', 'beside', 'beneath'].filter((word) => reading.sent.join().includes(word));
    expect(has(byField)).toEqual(showsOthers ? ['mine', 'beside', 'beneath'] : ['mine', 'beneath']);
    expect(has(byRow)).toEqual(showsOthers ? ['mine', 'beside', 'beneath'] : ['mine', 'beside']);
    // How others' answers are judged is not sent either.
    byRow.change(putRules([stored({ ...anyKey, when: { ...anyKey.when, expect: ['mine', 'beneath'] } })]));
    const { rows, looks } = byRow.shown();
    const says = (id: string) => looks[rows.findIndex((row) => row.id === id)]![0]!.says;
    expect([says('r1'), says('r2')]).toEqual([['right'], showsOthers ? ['right'] : []]);
  }
});

test('the answers that stand in an answer key reach no reader, in the legend either', () => {
  const key = {
    id: 'k',
    name: 'Key',
    on: true,
    settles: false,
    reads: { fields: ['f1'] },
    when: { kind: 'key' as const, expect: [SECRET], looks: { right: { fill: '#00aa00' }, wrong: { fill: '#aa0000' } } },
    paints: 'cell' as const,
  };
  const filling = { ...NOTHING_OPEN, open: ['f1'] };
  for (const role of ['viewer', 'filler'] as const) {
    const reading = new Reading(dressed([key], filling), { role, own: { fields: null, rows: null } });
    expect(reading.sent.length, role).toBeGreaterThan(0);
    expect(reading.sent.join('\n'), role).not.toContain(SECRET);
  }
});
