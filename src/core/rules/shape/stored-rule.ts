import type { KeyedRule, Operation } from '../../sheet/change';
import type { Sheet } from '../../sheet/sheet';
import type { Rule } from './rule';

/** A rule with its order key, as a sheet keeps it. */
export interface StoredRule extends KeyedRule {
  readonly rule: Rule;
}

/** The rules of a sheet in order of precedence. */
export const rulesOf = (sheet: Sheet): StoredRule[] => whole(sheet.rulesInOrder());

/** A rule of a sheet, if it has one of this id. */
export function findRule(sheet: Sheet, id: string): StoredRule | undefined {
  const found = sheet.rules.get(id);
  return found && whole([found])[0];
}

/** The operation that adds and replaces rules, each by its id. */
export const putRules = (rules: readonly StoredRule[]): Operation => ({ kind: 'put-rules', rules });

/** The rules that an operation puts; none where it does something else. */
export const rulesPutBy = (operation: Operation): readonly StoredRule[] =>
  operation.kind === 'put-rules' ? whole(operation.rules) : [];

/**
 * A sheet asks only the id and the name of a rule; each that is put into one has been checked at the border, or is made
 * here.
 */
const whole = (rules: readonly KeyedRule[]): StoredRule[] => rules as StoredRule[];
