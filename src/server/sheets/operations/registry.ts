import { entryOf } from '../../../core/values/entry-of';
import type { Operation } from '../../../core/sheet/change';
import type { OperationName, OperationOf } from '../../../core/sheet/operations/operation-kind';
import { storedCells, storedStyles } from './cells';
import { storedFields } from './fields';
import { storedParts } from './parts';
import { storedChange, storedInsert, storedRemove } from './rows';
import { storedRules } from './rules';
import type { StoredOperation } from './stored-operation';

/** The meaning of each operation in the database. */
const STORED_OPERATIONS = {
  'set-cells': storedCells,
  'set-styles': storedStyles,
  'insert-rows': storedInsert,
  'remove-rows': storedRemove,
  'change-rows': storedChange,
  'put-fields': storedFields.put,
  'remove-fields': storedFields.remove,
  'put-parts': storedParts.put,
  'remove-parts': storedParts.remove,
  'put-rules': storedRules.put,
  'remove-rules': storedRules.remove,
} as const satisfies { readonly [K in OperationName]: StoredOperation<OperationOf<K>> };

/** The registry pairs each name with what takes its operations. */
export const storedOperation = (operation: Operation): StoredOperation<Operation> =>
  entryOf(STORED_OPERATIONS, operation.kind);
