import type { Operation } from './change';
import { operationKind } from './operations/registry';

interface Beside {
  /** The inverse of the change: it shows what was there before. */
  readonly inverse: readonly Operation[];
  /** How many cells or rows each operation is about, where not all of them are given. */
  readonly counts?: readonly number[];
}

/** A change in a few words for each operation: "12 cells entered", "rule “Low oxygen” made". */
export function changeWords(operations: readonly Operation[], { inverse, counts }: Beside): string[] {
  const made = new Set(inverse.flatMap((operation) => (operation.kind === 'remove-rules' ? operation.rules : [])));
  return [
    ...new Set(
      operations.flatMap((operation, at) => operationKind(operation).words(operation, { made, count: counts?.[at] })),
    ),
  ];
}
