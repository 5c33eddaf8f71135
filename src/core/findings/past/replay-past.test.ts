import fc from 'fast-check';
import { generateNKeysBetween } from 'fractional-indexing';
import { describe, expect, test } from 'vitest';
import { anyOperation, anyRule, makeSheet } from '../../../../test/support/arbitrary-sheet';
import { CellPast } from '../../rules/evaluate/cell-past';
import { Evaluation } from '../../rules/evaluate/evaluation';
import type { Rule } from '../../rules/shape/rule';
import type { Operation } from '../../sheet/change';
import type { Sheet } from '../../sheet/sheet';
import { serialInZone } from '../../values/dates/serial-in-zone';
import { UNWATCHED_KINDS } from '../rule-watch';
import { PastReplay } from './replay-past';
import type { Spell } from './spells';
import { summarizeSpells } from './summarize-spells';

const HOUR_MS = 3_600_000;
/** Midnight by the clocks of UTC, 8 March 2026: what follows is on one day. */
const BEGAN_MS = Date.UTC(2026, 2, 8);
const momentAt = (step: number): number => BEGAN_MS + (step + 1) * HOUR_MS;
const serial = (epochMs: number): number => serialInZone(epochMs);

/** The cells to which a rule gives a look, evaluated from scratch. */
function painted(sheet: Sheet, rule: Rule, now: number): Set<string> {
  const evaluation = new Evaluation(sheet, {}, { now });
  evaluation.setRules([{ ...rule, on: true }]);
  const [running] = evaluation.activeRules;
  const cells = sheet.order.flatMap((slot) => sheet.fields.map(({ id }, column) => ({ slot, column, id })));
  return new Set(
    cells
      .filter(({ column, slot }) => running?.shows(column, slot))
      .map(({ slot, id }) => `${sheet.rowId(slot)} ${id}`),
  );
}

const paintedAt = (spells: readonly Spell[], moment: number): Set<string> =>
  new Set(spells.filter(({ from, to }) => from <= moment && moment < to).map(({ row, field }) => `${row} ${field}`));

/** A sheet that is changed hour by hour, and its past. */
class Course {
  readonly sheet = makeSheet([]);
  readonly past = new CellPast(this.sheet);
  private steps = 0;

  constructor(private readonly rule: Rule) {
    const inputs = ['5', '4', '9', '3', '7', ''];
    const cellsAt = (at: number) => ({
      f1: inputs[at] ?? '',
      f2: inputs[(at + 3) % 6] ?? '',
      f3: inputs[(at * 7) % 6] ?? '',
    });
    const rows = inputs.map((_, at) => ({ id: `r${at}`, key: '', role: 'record' as const, cells: cellsAt(at) }));
    this.sheet.apply(inTheirPlaces({ kind: 'insert-rows', rows }));
    this.past.knowsFrom(BEGAN_MS, true);
  }

  /** Applies an operation. Gives what is painted then. */
  do(operation: Operation): Set<string> {
    const at = momentAt(this.steps++);
    const { inverse } = this.sheet.apply(operation);
    this.past.add({ sequence: this.steps, at, inverse });
    return painted(this.sheet, this.rule, serial(at));
  }

  spells() {
    const { world } = new Evaluation(this.sheet, {});
    return new PastReplay(world, this.past).spellsOf(this.rule, serial(momentAt(this.steps)));
  }
}

/** A formula without a cell that it is written for is written for the first one read, which may be another one then. */
const anchoredRule = anyRule.map((rule): Rule =>
  rule.when.kind === 'formula' ? { ...rule, when: { ...rule.when, at: 'A2' } } : rule,
);

const ROW_KEYS = generateNKeysBetween('a0', null, 20);

/** Rows that come back do so as what they were, and where they were, as by an undo. */
function inTheirPlaces(operation: Operation): Operation {
  if (operation.kind !== 'insert-rows') return operation;
  const rows = operation.rows.map((row) => ({
    ...row,
    role: 'record' as const,
    key: ROW_KEYS[Number(row.id.slice(1))] ?? row.key,
  }));
  return { ...operation, rows };
}

describe('the past of a rule', () => {
  // The sheet of each moment, evaluated from scratch, is the reference.
  test('at each moment the cells are painted that were painted then', () => {
    fc.assert(
      fc.property(anchoredRule, fc.array(anyOperation, { minLength: 1, maxLength: 10 }), (rule, operations) => {
        if (UNWATCHED_KINDS.some((kind) => kind === rule.when.kind) || !('fields' in rule.reads)) return;
        const kinds = ['set-cells', 'insert-rows', 'remove-rows'];
        const course = new Course(rule);
        const before = painted(course.sheet, rule, serial(BEGAN_MS));
        const shown = operations
          .filter(({ kind }) => kinds.includes(kind))
          .map((operation) => course.do(inTheirPlaces(operation)));
        const spells = course.spells();
        if (typeof spells === 'string' || !('length' in spells)) return;
        expect(paintedAt(spells, serial(BEGAN_MS) + 1e-3)).toEqual(before);
        shown.forEach((cells, step) => expect(paintedAt(spells, serial(momentAt(step)) + 1e-3)).toEqual(cells));
      }),
      { numRuns: 1000 },
    );
  });

  const low: Rule = {
    id: 'low',
    name: 'Low',
    on: true,
    settles: false,
    reads: { fields: ['f1'] },
    when: { kind: 'compare', is: '<', to: 5 },
    paints: 'cell',
    look: { fill: '#aaaaaa' },
  };
  const type = (row: string, input: string): Operation => ({ kind: 'set-cells', cells: [{ row, field: 'f1', input }] });

  // 4 and 3 are low from the beginning. Hours: r0 falls at 1, rises at 3, falls again at 4; r1 rises at 2.
  test('says what entered and left, how long it stayed, and what flapped', () => {
    const course = new Course(low);
    for (const operation of [type('r0', '2'), type('r1', '6'), type('r0', '8'), type('r0', '1')]) course.do(operation);
    const spells = course.spells();
    if (typeof spells === 'string' || !('length' in spells)) throw new Error('it was not replayed');
    const summary = summarizeSpells(spells, { from: serial(BEGAN_MS), to: serial(momentAt(5)) });
    expect(summary).toMatchObject({ before: 2, entered: 2, left: 2, cells: 1, flapped: 1 });
    expect(summary.medianDays * 24).toBeCloseTo(2);
    expect(summary.most[0]).toMatchObject({ row: 'r0', times: 2, isNow: true });
    expect(summary.bins.reduce((sum, { entered }) => sum + entered, 0)).toBe(2);
    expect(summary.bins.at(-1)?.count).toBe(2);
  });

  test('a shade of every number has no past, and what changed within a time needs another one', () => {
    const spellsOf = (when: Rule['when']) => new Course({ ...low, when }).spells();
    expect(spellsOf({ kind: 'bar', from: 'auto', to: 'auto' })).toBe('shades-all');
    const course = new Course({ ...low, when: { kind: 'change', is: 'changed', within: { n: 1, unit: 'day' } } });
    course.do(type('r0', '2'));
    expect(course.spells()).toBe('needs-past');
  });
});
