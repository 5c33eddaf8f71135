import equal from 'fast-deep-equal';
import type { Operation, RowChange, StoredRow } from '../../../core/sheet/change';
import type { OperationOf } from '../../../core/sheet/operations/operation-kind';
import { Refusal } from '../../refusal';
import { deleteRows, findRowKeys, findRows, insertRows, updateRowKeys, type MovedRow } from '../../sql/row';
import type { HeldSheet } from '../held-sheet';
import { checkFields } from './check-fields';
import { idsOf } from './keyed';
import type { StoredOperation } from './stored-operation';
import { refusalText } from '../../../texts/refusal-text';

export const storedInsert: StoredOperation<OperationOf<'insert-rows'>> = {
  apply: (sheet, { rows }) => addRows(sheet, rows),
  async unchangedSince(tx, sheet, { operation }) {
    const there = new Set(idsOf(await findRows(tx, sheet, idsOf(operation.rows))));
    const rows = operation.rows.filter(({ id }) => !there.has(id));
    return rows.length ? [{ ...operation, rows }] : [];
  },
};

export const storedRemove: StoredOperation<OperationOf<'remove-rows'>> = {
  async apply(sheet, operation) {
    const tx = await sheet.settled();
    const rows = await findRows(tx, sheet.id, operation.rows);
    await deleteRows(tx, sheet.id, operation.rows);
    return rows.length ? [{ kind: 'insert-rows', rows }] : [];
  },
  // A row that came with the change may have been filled since.
  async unchangedSince(tx, sheet, { operation, operations }) {
    const now = new Map((await findRows(tx, sheet, operation.rows)).map((row) => [row.id, row.cells]));
    const inserted = operations.flatMap((each) => (each.kind === 'insert-rows' ? each.rows : []));
    const came = new Map(inserted.map((row) => [row.id, row.cells]));
    const rows = operation.rows.filter((id) => now.has(id) && equal(filled(now.get(id)!), filled(came.get(id) ?? {})));
    return rows.length ? [{ ...operation, rows }] : [];
  },
};

export const storedChange: StoredOperation<OperationOf<'change-rows'>> = {
  apply: (sheet, { rows }) => changeRows(sheet, rows),
  unchangedSince: (_, __, { operation }) => Promise.resolve([operation]),
};

const filled = (cells: Readonly<Record<string, string>>) =>
  Object.fromEntries(Object.entries(cells).filter(([, input]) => input !== ''));

async function addRows(sheet: HeldSheet, rows: readonly StoredRow[]): Promise<Operation[]> {
  await checkFields(
    sheet,
    rows.flatMap((row) => Object.keys(row.cells)),
  );
  const tx = await sheet.settled();
  if ((await findRows(tx, sheet.id, idsOf(rows))).length)
    throw new Refusal('row-exists', refusalText('oneTheseRowsSheet'));
  await insertRows(tx, sheet.id, rows);
  return [{ kind: 'remove-rows', rows: idsOf(rows) }];
}

async function changeRows(sheet: HeldSheet, changes: readonly RowChange[]): Promise<Operation[]> {
  const moves = changes.flatMap(movedOnly);
  if (moves.length === changes.length && new Set(idsOf(moves)).size === moves.length) return moveRows(sheet, moves);
  const rows = await sheet.rowsWith(idsOf(changes));
  const inverse: RowChange[] = [];
  for (const { id, key, role, ...about } of changes) {
    const row = rows.get(id);
    const known = row.about ?? {};
    const before = Object.fromEntries(
      Object.keys(about).map((name) => [name, known[name as keyof typeof about] ?? null]),
    );
    inverse.push({
      id,
      ...(key === undefined ? {} : { key: row.key }),
      ...(role === undefined ? {} : { role: row.role }),
      ...before,
    });
    rows.put(id, { key: key ?? row.key, role: role ?? row.role });
    rows.putAbout(id, { ...known, ...about });
  }
  return [{ kind: 'change-rows', rows: inverse.reverse() }];
}

/** A change that gives a row another place, and nothing else. */
const movedOnly = ({ id, key, ...rest }: RowChange): MovedRow[] =>
  key !== undefined && Object.keys(rest).length === 0 ? [{ id, key }] : [];

/** Moves rows without reading what is in them: a sort may move all there are. */
async function moveRows(sheet: HeldSheet, moves: readonly MovedRow[]): Promise<Operation[]> {
  const tx = await sheet.settled();
  const before = new Map((await findRowKeys(tx, sheet.id, idsOf(moves))).map(({ id, key }) => [id, key]));
  const inverse = moves.map(({ id }): MovedRow => {
    const key = before.get(id);
    if (key === undefined) throw new Refusal('row-gone', refusalText('recordHasBeenRemoved'));
    return { id, key };
  });
  await updateRowKeys(tx, sheet.id, moves);
  return [{ kind: 'change-rows', rows: inverse.reverse() }];
}
