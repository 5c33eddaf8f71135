import type { Operation } from '../../core/sheet/change';
import { refusalText } from '../../texts/refusal-text';
import { Refusal } from '../refusal';
import { findLinkedTable } from '../sql/linked-table';
import type { HeldSheet } from './held-sheet';

/** Throws a Refusal where rows are put into a sheet whose records stay in another database. */
export async function checkLinked(sheet: HeldSheet, operations: readonly Operation[]): Promise<void> {
  if (!operations.some(({ kind }) => kind === 'insert-rows')) return;
  if (await findLinkedTable(await sheet.settled(), sheet.id))
    throw new Refusal('locked', refusalText('recordsInDatabase'));
}
