import { judgeTrial, takesTrials } from '../evaluate/judge-trial';
import type { Adviser } from './advice';

/** A kept example that does not come out as it should. */
export const failingTrial: Adviser = ({ evaluation }) =>
  evaluation.activeRules.flatMap(({ rule, problem }) => {
    if (problem || !takesTrials(rule)) return [];
    const failing = (rule.trials ?? []).filter(
      ({ value, expect }) => judgeTrial(rule, value, evaluation.world) !== expect,
    );
    const [first] = failing;
    if (!first) return [];
    const shown = first.value === null || first.value === '' ? 'a blank' : String(first.value);
    const message = `${failing.length} of ${rule.trials?.length} trials of “${rule.name}” ${failing.length === 1 ? 'fails' : 'fail'}: ${shown} should give ${String(first.expect)}.`;
    return [{ rules: [rule.id], cells: [], message, repair: null }];
  });
