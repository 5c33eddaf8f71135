import { Evaluation } from '../../rules/evaluate/evaluation';
import type { RuleWorld } from '../../rules/compile/compile-context';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import type { Rule } from '../../rules/shape/rule';
import type { Problem } from '../../rules/terms';
import type { Operation, StoredRow } from '../../sheet/change';
import type { Effect } from '../../sheet/effect';
import type { FieldId, RowId } from '../../sheet/ids';
import { Sheet } from '../../sheet/sheet';
import { itemAt } from '../../values/item-at';
import type { RecordVersions } from './record-versions';
import { SpellsOfCell, type Spell } from './spells';

/** Moments at which a rule is evaluated at most; changes between two of them are taken together. */
const MAX_STEPS = 2500;
/** So many rows are looked at in all steps together. */
const MAX_LOOKS = 20_000_000;

const stepsFor = (rows: number): number => Math.min(MAX_STEPS, Math.max(50, Math.floor(MAX_LOOKS / Math.max(1, rows))));

interface Step {
  readonly at: number;
  readonly operations: Operation[];
}

interface ReplayOptions {
  /** Switched on. */
  readonly rule: Rule;
  /** The moments of the past that are known, as serial dates. */
  readonly begins: number;
  readonly now: number;
}

/**
 * When each cell had a look by a rule that depends on other records or on the day: the sheet is put back to where its
 * past begins, and the changes are applied to it one after another, with the first moment of each day where the rule
 * depends on it. Cost: an edit under one rule, and a look at its outcomes, for each step; 2,500 steps at most, fewer of many rows.
 */
export function replayInSteps(
  { sheet: present, formulas: { findSheet, work } }: RuleWorld,
  versions: RecordVersions,
  { rule, begins, now }: ReplayOptions,
): Spell[] | Problem {
  const { sheet, steps } = courseOf(present, versions, begins);
  const evaluation = new Evaluation(sheet, {}, { now: begins, findSheet, limits: work.limits });
  evaluation.setRules([rule]);
  const first = itemAt(evaluation.activeRules, 0);
  if (first.problem && steps.length === 0) return first.problem;
  const watch = new OutcomeWatch(sheet);
  watch.look(first, begins);
  const days = first.isTimeDependent ? midnights(begins, now, stepsFor(present.rowCount) / 4) : [];
  let day = 0;
  const tickUntil = (moment: number): void => {
    for (; day < days.length && itemAt(days, day) <= moment; day++) {
      evaluation.tick(itemAt(days, day));
      watch.look(itemAt(evaluation.activeRules, 0), itemAt(days, day));
    }
  };
  for (const { at, operations } of steps) {
    tickUntil(at);
    const effects: Effect[] = [];
    for (const operation of operations) effects.push(...sheet.apply(operation).effects);
    evaluation.follow(effects);
    watch.look(itemAt(evaluation.activeRules, 0), at);
  }
  tickUntil(now);
  const problem = itemAt(evaluation.activeRules, 0).problem;
  return problem ?? watch.end();
}

/** The first moment of each day from one moment to another; of a long time, of every second or third day and so on. */
function midnights(from: number, to: number, most: number): number[] {
  const first = Math.floor(from) + 1;
  const every = Math.max(1, Math.ceil((to - first) / most));
  return Array.from({ length: Math.max(0, Math.floor((to - first) / every) + 1) }, (_, at) => first + at * every);
}

/** The sheet as it was when its past begins, and what happened since. */
function courseOf(present: Sheet, { sheet: made, versions, unchanged }: RecordVersions, begins: number) {
  const begun = new Sheet(present.fields, present.settings);
  const rows: StoredRow[] = unchanged.map((slot) => present.storedRow(slot));
  const events: { readonly at: number; readonly operation: Operation }[] = [];
  for (const [slot, version] of versions.entries()) {
    if (!version) continue;
    const { row: id, key, role, from, to } = version;
    const [previous, next] = [versions[slot - 1], versions[slot + 1]];
    // Between two versions of a row that do not meet it was gone.
    const before = previous?.row === id && previous.to === from ? slot - 1 : undefined;
    const row: StoredRow = { id, key, role, cells: cellsAt(made, slot) };
    if (before !== undefined) events.push({ at: from, operation: changed(made, { slot, before, row: id }) });
    else if (from <= begins) rows.push(row);
    else events.push({ at: from, operation: { kind: 'insert-rows', rows: [row] } });
    if (to !== Infinity && !(next?.row === id && next.from === to))
      events.push({ at: to, operation: { kind: 'remove-rows', rows: [id] } });
  }
  if (rows.length) begun.apply({ kind: 'insert-rows', rows });
  const parts = [...present.parts.values()];
  if (parts.length) begun.apply({ kind: 'put-parts', parts });
  return { sheet: begun, steps: inSteps(events, stepsFor(present.rowCount)) };
}

const cellsAt = (made: Sheet, slot: number): Record<FieldId, string> =>
  Object.fromEntries(made.fields.map(({ id }, column) => [id, made.column(column).inputAt(slot)]));

function changed(
  made: Sheet,
  { slot, before, row }: { readonly slot: number; readonly before: number; readonly row: RowId },
): Operation {
  const cells = made.fields.flatMap(({ id: field }, column) => {
    const input = made.column(column).inputAt(slot);
    return input === made.column(column).inputAt(before) ? [] : [{ row, field, input }];
  });
  return { kind: 'set-cells', cells };
}

/** Events in order of time, those of one moment together; of too many moments, those of the same span of time. */
function inSteps(events: { readonly at: number; readonly operation: Operation }[], most: number): Step[] {
  events.sort((a, b) => a.at - b.at);
  const moments = new Set(events.map(({ at }) => at)).size;
  const [from, to] = [events[0]?.at ?? 0, events.at(-1)?.at ?? 0];
  const width = moments > most ? (to - from) / most : 0;
  const steps: Step[] = [];
  for (const { at, operation } of events) {
    const last = steps.at(-1);
    if (last && at - last.at <= width) last.operations.push(operation);
    else steps.push({ at, operations: [operation] });
  }
  return steps;
}

/** Remembers the outcome of each cell, and since when it has it. */
class OutcomeWatch {
  private readonly spells: Spell[] = [];
  private readonly since = new Map<number, { readonly outcomes: Int32Array; readonly from: Float64Array }>();

  constructor(private readonly sheet: Sheet) {}

  /** The outcomes from a moment on. */
  look(running: RunningRule, at: number): void {
    const columns = new Set([...this.since.keys(), ...running.read.map(({ column }) => column)]);
    for (const column of columns) {
      const known = this.fit(column);
      for (let slot = 0; slot < this.sheet.slotCount; slot++) {
        const outcome = running.works && running.shows(column, slot) ? running.outcomeAt(column, slot) : -1;
        if (outcome === known.outcomes[slot]) continue;
        this.close(column, slot, at);
        known.outcomes[slot] = outcome;
        known.from[slot] = at;
      }
    }
  }

  /** All spells; those that go on have no end. */
  end(): Spell[] {
    for (const [column, { outcomes }] of this.since)
      for (let slot = 0; slot < outcomes.length; slot++) this.close(column, slot, Infinity);
    return this.spells;
  }

  private fit(column: number): { readonly outcomes: Int32Array; readonly from: Float64Array } {
    const known = this.since.get(column);
    const { slotCount } = this.sheet;
    if (known && known.outcomes.length >= slotCount) return known;
    const size = Math.max(slotCount, 2 * (known?.outcomes.length ?? 0));
    const grown = { outcomes: new Int32Array(size).fill(-1), from: new Float64Array(size) };
    if (known) grown.outcomes.set(known.outcomes);
    if (known) grown.from.set(known.from);
    this.since.set(column, grown);
    return grown;
  }

  private close(column: number, slot: number, to: number): void {
    const known = this.since.get(column);
    const outcome = known?.outcomes[slot] ?? -1;
    if (!known || outcome < 0) return;
    const cell = { row: this.sheet.rowId(slot), field: this.sheet.field(column).id };
    const spells = new SpellsOfCell(cell, this.spells);
    spells.add(outcome, known.from[slot] ?? NaN, to);
    spells.end();
  }
}
