import { entryOf, findEntry } from '../../values/entry-of';
import type { CellInput, Operation } from '../change';
import { setCells } from './cells';
import { putFields, removeFields } from './fields';
import type { OperationKind, OperationName, OperationOf } from './operation-kind';
import { putParts, removeParts } from './parts';
import { changeRows, insertRows, removeRows } from './rows';
import { putRules, removeRules } from './rules';
import { setStyles } from './styles';

/** The meaning of each operation in memory. */
export const OPERATIONS = {
  'set-cells': setCells,
  'set-styles': setStyles,
  'insert-rows': insertRows,
  'remove-rows': removeRows,
  'change-rows': changeRows,
  'put-fields': putFields,
  'remove-fields': removeFields,
  'put-parts': putParts,
  'remove-parts': removeParts,
  'put-rules': putRules,
  'remove-rules': removeRules,
} as const satisfies { readonly [K in OperationName]: OperationKind<OperationOf<K>> };

/** The registry pairs each name with the kind that takes its operations. */
export const operationKind = (operation: Operation): OperationKind<Operation> => entryOf(OPERATIONS, operation.kind);

/** The inputs that operations set, in their order. */
export const entriesOf = (operations: readonly Operation[]): CellInput[] =>
  operations.flatMap((operation) => operationKind(operation).entries?.(operation) ?? []);

/** Cells, rows and so on that operations touch. */
export const sizeOf = (operations: readonly Operation[]): number =>
  operations.reduce((sum, operation) => sum + operationKind(operation).size(operation), 0);

/** True where an operation holds rules, fields or parts. */
export const describesItems = (kind: string): boolean =>
  findEntry<OperationKind<Operation>>(OPERATIONS, kind)?.describes === true;
