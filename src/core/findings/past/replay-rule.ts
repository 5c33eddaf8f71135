import type { Look } from '../../looks/look';
import { Evaluation } from '../../rules/evaluate/evaluation';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import { kindOf } from '../../rules/kinds/registry';
import type { Rule } from '../../rules/shape/rule';
import type { Problem } from '../../rules/terms';
import type { Sheet } from '../../sheet/sheet';
import { itemAt } from '../../values/item-at';
import type { RecordVersions } from './record-versions';
import { SpellsOfCell, type Spell } from './spells';

/** Whether a rule looks at each record by itself, so that all versions of all records can be evaluated at once. */
export function isByRecord({ reads, when }: Rule, running: RunningRule): boolean {
  if (!('fields' in reads) || (reads.roles ?? ['record']).some((role) => role !== 'record')) return false;
  return kindOf(when).isByRecord?.(when) === true && running.readsRecordAlone;
}

interface RecordReplay {
  /** The sheet of now, with the rule over it: rows that have not changed are as they are there. */
  readonly present: { readonly sheet: Sheet; readonly running: RunningRule };
  readonly saved: Readonly<Record<string, Look>>;
  readonly begins: number;
  readonly now: number;
}

/**
 * When each cell had a look by a rule that looks at each record by itself. Cost: evaluating the rule over all versions,
 * and a look at each. A problem where the rule cannot work.
 */
export function replayByRecord(
  { sheet, versions, unchanged }: RecordVersions,
  rule: Rule,
  { present, saved, begins, now }: RecordReplay,
): Spell[] | Problem {
  const evaluation = new Evaluation(sheet, saved, { now });
  evaluation.setRules([{ ...rule, on: true }]);
  const running = itemAt(evaluation.activeRules, 0);
  if (running.problem) return running.problem;
  const spells: Spell[] = [];
  const isRead = new Set(present.running.read.map(({ column }) => column));
  for (const column of isRead) {
    const field = sheet.field(column).id;
    for (const slot of unchanged) {
      const outcome = present.running.shows(column, slot) ? present.running.outcomeAt(column, slot) : -1;
      if (outcome >= 0) spells.push({ row: present.sheet.rowId(slot), field, outcome, from: begins, to: Infinity });
    }
  }
  for (const { column } of running.read) {
    const field = sheet.field(column).id;
    let cell: { readonly row: string; readonly spells: SpellsOfCell } | undefined;
    for (const [slot, version] of versions.entries()) {
      if (!version) continue;
      if (cell?.row !== version.row) {
        cell?.spells.end();
        cell = { row: version.row, spells: new SpellsOfCell({ row: version.row, field }, spells) };
      }
      const outcome = running.shows(column, slot) ? running.outcomeAt(column, slot) : -1;
      cell.spells.add(outcome, version.from, version.to);
    }
    cell?.spells.end();
  }
  return spells;
}
