import type { OperationOf } from '../../../core/sheet/operations/operation-kind';
import { deleteParts, putPart, readParts } from '../../sql/part';
import { addedTo, idsOf, leftAlone } from './keyed';
import type { StoredOperation } from './stored-operation';

export const storedParts: StoredOperation<OperationOf<'put-parts'>> = {
  async apply(tx, sheet, operation) {
    const before = await readParts(tx, sheet, idsOf(operation.parts));
    for (const part of operation.parts) await putPart(tx, sheet, part);
    const added = addedTo(before, operation.parts);
    return [
      ...(added.length ? [{ kind: 'remove-parts' as const, parts: added }] : []),
      ...(before.length ? [{ kind: 'put-parts' as const, parts: before }] : []),
    ];
  },
  async unchangedSince(tx, sheet, { operation, operations }) {
    const now = await readParts(tx, sheet, idsOf(operation.parts));
    const parts = leftAlone(operation.parts, now, { name: 'parts', operations });
    return parts.length ? [{ ...operation, parts }] : [];
  },
};

export const storedPartRemoval: StoredOperation<OperationOf<'remove-parts'>> = {
  async apply(tx, sheet, operation) {
    const parts = await readParts(tx, sheet, operation.parts);
    await deleteParts(tx, sheet, operation.parts);
    return parts.length ? [{ kind: 'put-parts' as const, parts: parts }] : [];
  },
  async unchangedSince(tx, sheet, { operation, operations }) {
    const now = await readParts(tx, sheet, operation.parts);
    const parts = leftAlone(operation.parts, now, { name: 'parts', operations });
    return parts.length ? [{ ...operation, parts }] : [];
  },
};
