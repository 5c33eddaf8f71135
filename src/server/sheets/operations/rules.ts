import { rulesPutBy } from '../../../core/rules/shape/stored-rule';
import { deleteRules, putRule, readRules } from '../../sql/rule';
import { keyedOperations } from './keyed';

export const storedRules = keyedOperations({
  read: readRules,
  write: putRule,
  remove: deleteRules,
  itemsIn: rulesPutBy,
  idsIn: (operation) => (operation.kind === 'remove-rules' ? operation.rules : []),
  put: (rules) => ({ kind: 'put-rules' as const, rules }),
  takeOut: (rules) => ({ kind: 'remove-rules' as const, rules }),
});
