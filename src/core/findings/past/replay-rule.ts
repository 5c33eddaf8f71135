import { FormulaShapes } from '../../formula/run/make-formula';
import type { RuleWorld } from '../../rules/compile/compile-context';
import { RunningRule } from '../../rules/evaluate/running-rule';
import { kindOf } from '../../rules/kinds/registry';
import type { Rule } from '../../rules/shape/rule';
import type { Problem } from '../../rules/terms';
import type { RecordVersions } from './record-versions';
import { SpellsOfCell, type Spell } from './spells';

/** Whether a rule looks at each record by itself, so that all versions of all records can be evaluated at once. */
export function isByRecord({ reads, when }: Rule, running: RunningRule): boolean {
  if (!('fields' in reads) || (reads.roles ?? ['record']).some((role) => role !== 'record')) return false;
  return kindOf(when).isByRecord?.(when) === true && running.readsRecordAlone;
}

interface RecordReplay {
  /** The present sheet, and the rule as evaluated over it: unchanged rows are read from there. */
  readonly world: RuleWorld;
  readonly running: RunningRule;
  readonly begins: number;
}

/**
 * When each cell had a look by a rule that looks at each record by itself. Cost: evaluating the rule over all versions,
 * and a look at each. A problem where the rule cannot work.
 */
export function replayByRecord(
  { sheet, versions, unchanged }: RecordVersions,
  rule: Rule,
  { world, running: present, begins }: RecordReplay,
): Spell[] | Problem {
  const { now, work, findSheet, findName } = world.formulas;
  const formulas = { sheet, now, work, findSheet, findName };
  const running = new RunningRule(rule, { sheet, formulas, shapes: new FormulaShapes(), history: null });
  if (running.problem) return running.problem;
  const spells: Spell[] = [];
  const columns = new Set(present.read.map(({ column }) => column));
  for (const column of columns) {
    const field = sheet.field(column).id;
    for (const slot of unchanged) {
      const outcome = present.shows(column, slot) ? present.outcomeAt(column, slot) : -1;
      if (outcome >= 0) spells.push({ row: world.sheet.rowId(slot), field, outcome, from: begins, to: Infinity });
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
