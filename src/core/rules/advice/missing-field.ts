import type { Adviser } from './advice';

/** A rule that cannot work, since a field it names is not there. */
export const missingFieldAdvice: Adviser = ({ evaluation: { activeRules } }) =>
  activeRules.flatMap(({ rule, problem }) =>
    problem?.code === 'missing-field'
      ? [{ rules: [rule.id], cells: [], message: `“${rule.name}” paints nothing: ${problem.message}.`, repair: null }]
      : [],
  );
