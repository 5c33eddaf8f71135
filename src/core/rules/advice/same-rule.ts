import equal from 'fast-deep-equal';
import type { Adviser } from './advice';

/** Two rules that read, ask and paint the same. */
export const sameRule: Adviser = ({ stored }) => {
  const on = stored.filter(({ rule }) => rule.on);
  return on.flatMap((later, at) => {
    const first = on
      .slice(0, at)
      .find(({ rule }) =>
        equal([rule.reads, rule.when, rule.paints], [later.rule.reads, later.rule.when, later.rule.paints]),
      );
    if (!first) return [];
    return [
      {
        rules: [first.id, later.id],
        cells: [],
        message: `“${later.rule.name}” asks the same of the same cells as “${first.rule.name}”. One of them will do.`,
        repair: [{ kind: 'remove-rules' as const, rules: [later.id] }],
      },
    ];
  });
};
