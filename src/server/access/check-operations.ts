import { keptFields, NO_FORMULAS, ONLY_VALUES, OpenCells, MAX_FILLED } from '../../core/sharing/filling';
import { isMaker, type Own, type SheetRole, isOwner, type Reader } from '../../core/sharing/role';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { isAllowed } from '../../core/sheet/allowed-values';
import type { CellInput, Operation } from '../../core/sheet/change';
import { Refusal } from '../refusal';
import type { HeldSheet } from '../sheets/held-sheet';
import { refusalText } from '../../texts/refusal-text';

/** Throws a Refusal where somebody may not do all of this. */
export async function checkOperations(
  sheet: HeldSheet,
  { role, own, operations }: { readonly role: SheetRole; readonly own: Own; readonly operations: readonly Operation[] },
): Promise<void> {
  if (isOwner(role)) return;
  if (!isMaker(role)) return checkEntries(sheet, { reader: { role, own }, operations });
  const isAboutFilling = operations.some(
    (operation) =>
      (operation.kind === 'put-parts' && operation.parts.some(({ kind }) => kind === 'filling')) ||
      (operation.kind === 'remove-parts' && operation.parts.includes('filling')),
  );
  if (isAboutFilling) throw new Refusal('not-allowed', refusalText('onlyOwnerCanChange'));
}

/** Entries that a filler makes at once: by pasting, or after some time without a connection. */
const MAX_ENTRIES = 2000;
const TOO_LONG = refusalText('entryHereHasMost', { maxFilled: MAX_FILLED });

type Reading = {
  readonly reader: Reader;
  readonly operations: readonly Operation[];
};

/** Fillers enter values into cells that are open for them, and nothing else. */
async function checkEntries(sheet: HeldSheet, { reader, operations }: Reading): Promise<void> {
  const cells = operations.flatMap((operation): readonly CellInput[] => {
    if (operation.kind !== 'set-cells') throw new Refusal('locked', ONLY_VALUES);
    return operation.cells;
  });
  if (cells.length > MAX_ENTRIES)
    throw new Refusal('too-long', refusalText('mostMaxEntriesEntriesCan', { maxEntries: MAX_ENTRIES }));
  if (cells.some(({ input }) => input.length > MAX_FILLED)) throw new Refusal('too-long', TOO_LONG);
  const [fields, stored, filling] = await Promise.all([sheet.fields(), sheet.rules(), sheet.filling()]);
  const rules = stored.map(({ rule }) => rule);
  const open = new OpenCells(filling, keptFields(filling, rules, fields));
  const rows = await sheet.rowsWith(cells.map(({ row }) => row));
  for (const { row, field: id, input } of cells) {
    // A missing row or field answers like a locked one: a filler must not learn what else there is.
    const lock = open.lockOf({ row, role: rows.find(row)?.role ?? 'note', field: id }, reader);
    const field = fields.find((candidate) => candidate.id === id);
    if (lock !== null || !rows.find(row) || !field) throw new Refusal('locked', lock ?? refusalText('cellNotThereAny'));
    if (isFormulaInput(input)) throw new Refusal('locked', NO_FORMULAS);
    // The list goes only to those who get it with the field: for a cell that is open by itself it does not.
    if (!isAllowed(field, input))
      throw new Refusal(
        'bad-request',
        filling.open.includes(id)
          ? refusalText('chooseOneAllowed', { allowed: field.allowed!.join(', ') })
          : refusalText('notOneValuesTaken'),
      );
  }
}
