import type { Look } from '../../looks/look';
import { Evaluation } from '../../rules/evaluate/evaluation';
import type { RunningRule } from '../../rules/evaluate/running-rule';
import { kindOf } from '../../rules/kinds/registry';
import type { Rule } from '../../rules/shape/rule';
import type { Problem } from '../../rules/terms';
import { itemAt } from '../../values/item-at';
import type { RecordVersions } from './record-versions';
import { SpellsOfCell, type Spell } from './spells';

/** Whether a rule looks at each record by itself, so that all versions of all records can be evaluated at once. */
export function isByRecord({ reads, when }: Rule, running: RunningRule): boolean {
  if (!('fields' in reads) || (reads.roles ?? ['record']).some((role) => role !== 'record')) return false;
  return kindOf(when).isByRecord?.(when) === true && running.readsRecordAlone;
}

/**
 * When each cell had a look by a rule that looks at each record by itself. Cost: evaluating the rule over all versions,
 * and a look at each. A problem where the rule cannot work.
 */
export function replayByRecord(
  { sheet, versions }: RecordVersions,
  rule: Rule,
  { saved, now }: { readonly saved: Readonly<Record<string, Look>>; readonly now: number },
): Spell[] | Problem {
  const evaluation = new Evaluation(sheet, saved, { now });
  evaluation.setRules([{ ...rule, on: true }]);
  const running = itemAt(evaluation.activeRules, 0);
  if (running.problem) return running.problem;
  const spells: Spell[] = [];
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
