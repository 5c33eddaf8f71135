import { deleteParts, putPart, readParts } from '../../sql/part';
import { keyedOperations } from './keyed';

export const storedParts = keyedOperations({
  read: readParts,
  write: putPart,
  remove: deleteParts,
  itemsIn: (operation) => (operation.kind === 'put-parts' ? operation.parts : []),
  idsIn: (operation) => (operation.kind === 'remove-parts' ? operation.parts : []),
  put: (parts) => ({ kind: 'put-parts' as const, parts }),
  takeOut: (parts) => ({ kind: 'remove-parts' as const, parts }),
});
