import type { VisibleSheet } from '../../core/sharing/sight';
import { operationKind } from '../../core/sheet/operations/registry';
import type { Sheet } from '../../core/sheet/sheet';
import type { RecordedChange } from '../../protocol/recorded-change';

/**
 * The part of a change that a reader without rules gets, of a change that is in the sheet; undefined where there is
 * none.
 */
export function sentChange(
  { sequence, at, change, seen }: RecordedChange,
  sight: VisibleSheet,
  sheet: Sheet,
): RecordedChange | undefined {
  const operations = change.operations.flatMap((operation) =>
    operationKind(operation).restrict(operation, sight, sheet),
  );
  return operations.length
    ? { sequence, at, change: { id: change.id, operations }, ...(seen === undefined ? {} : { seen }) }
    : undefined;
}
