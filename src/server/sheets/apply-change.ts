import { nanoid } from 'nanoid';
import type { Change, Operation } from '../../core/sheet/change';
import { checkOperations } from '../access/check-operations';
import type { LoggedChange } from '../sql/change';
import { checkLinked } from './check-linked';
import { checkSize } from './check-size';
import type { HeldSheet } from './held-sheet';
import { keepingOperations, mayHideMore } from './keep-from-fillers';
import type { MadeChange } from './made-change';
import { storedOperation } from './operations/registry';

interface Applied {
  readonly made: MadeChange;
  readonly operations: readonly Operation[];
  readonly sequence: number;
}

/**
 * Applies a change to a sheet; what goes into the log for it. Throws a Refusal where its author may not, or where the
 * sheet would be too large; NeedsLock where it needs one.
 */
export async function applyChange(
  sheet: HeldSheet,
  { made: { by, id, seen }, operations, sequence }: Applied,
): Promise<LoggedChange[]> {
  await checkOperations(sheet, { ...by, operations });
  const log = [await logChange(sheet, { sequence, author: by.author, seen, change: { id, operations } })];
  // Hidden fields are kept from fillers by a change of its own. It is not held to what its author may: nobody gives such
  // fields away by the way.
  const keeping = mayHideMore(operations) ? await keepingOperations(await sheet.settled(), sheet.id, 'if-any') : [];
  if (keeping.length)
    log.push(
      await logChange(sheet, {
        sequence: sequence + 1,
        author: by.author,
        change: { id: nanoid(), operations: keeping },
      }),
    );
  return log;
}

/** Applies operations, and finds their inverse. Throws a Refusal where the sheet would be too large. */
async function logChange(
  sheet: HeldSheet,
  logged: Omit<LoggedChange, 'inverse'> & { readonly change: Change },
): Promise<LoggedChange> {
  const inverse: Operation[] = [];
  for (const operation of logged.change.operations)
    inverse.unshift(...(await storedOperation(operation).apply(sheet, operation)));
  await checkLinked(sheet, logged.change.operations);
  await checkSize(sheet, { operations: logged.change.operations, sequence: logged.sequence });
  return { ...logged, inverse };
}
