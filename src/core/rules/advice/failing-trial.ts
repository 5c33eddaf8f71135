import { Sheet } from '../../sheet/sheet';
import { kindOf } from '../kinds/registry';
import type { Rule, Trial } from '../rule';
import { RunningRule } from '../running-rule';
import type { RuleWorld } from '../compile-context';
import type { Adviser } from './advice';

/** Kinds whose outcome hangs on the value alone. */
const BY_VALUE: ReadonlySet<string> = new Set(['compare', 'text', 'state', 'date', 'bands', 'category', 'key', 'icons']);

/** A kept example that does not come out as it should. */
export const failingTrial: Adviser = ({ evaluation }) =>
  evaluation.running.flatMap(({ rule, problem }) => {
    if (problem || !BY_VALUE.has(rule.when.kind)) return [];
    const failing = (rule.trials ?? []).filter((trial) => !passes(rule, trial, evaluation.world));
    if (failing.length === 0) return [];
    const [first] = failing;
    const shown = first!.value === null || first!.value === '' ? 'a blank' : String(first!.value);
    const message = `${failing.length} of ${rule.trials!.length} trials of “${rule.name}” ${failing.length === 1 ? 'fails' : 'fail'}: ${shown} should give ${String(first!.expect)}.`;
    return [{ rules: [rule.id], cells: [], message, repair: null }];
  });

/** Judges one value as the only record of a sheet with the same fields. */
function passes(rule: Rule, trial: Trial, world: RuleWorld): boolean {
  const alone = sheetOfOne(world.sheet, trial.value);
  const reads = { fields: alone.fields.map(({ id }) => id) };
  const running = new RunningRule(
    { ...rule, on: true, reads, paints: 'cell' },
    { ...world, sheet: alone, formulas: { ...world.formulas, sheet: alone } },
  );
  const outcome = running.outcomeAt(0, 0);
  if (kindOf(rule.when).outcomes === 'match') return outcome >= 0 === (trial.expect === true);
  return (outcome < 0 ? null : running.outcomeTold(0, 0)) === trial.expect;
}

function sheetOfOne({ fields, settings }: Sheet, value: Trial['value']): Sheet {
  const alone = new Sheet(fields, settings);
  const slot = alone.appendRow({ id: 'trial', key: '', role: 'record' });
  const input = value === null ? '' : typeof value === 'boolean' ? String(value).toUpperCase() : String(value);
  for (const column of alone.columns) column.set(slot, input);
  return alone;
}
