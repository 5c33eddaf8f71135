import { itemAt } from '../../core/values/item-at';
import { entriesOf } from '../../core/sheet/operations/registry';
import { isFormulaInput } from '../../core/values/is-formula-input';
import { columnLetters } from '../../core/sheet/address';
import type { StoredRow } from '../../core/sheet/change';
import { changeWords } from '../../core/sheet/change-words';
import type { Field } from '../../core/sheet/field';
import type { SheetId } from '../../core/sheet/ids';
import { HISTORY_PAGE, type CellStep, type HistoryEntry, type HistoryQuery } from '../../protocol/sheet-history';
import type { Sql } from '../database';
import { readHistory, type ToldChange } from '../sql/change';
import { readFields } from '../sql/field';
import { readParts } from '../sql/part';
import { findHeader, findRows } from '../sql/row';
import { findSheet } from '../sql/sheet';
import { Refusal } from '../refusal';
import { refusalText } from '../../texts/refusal-text';

/** Cells of a change that are listed one by one. */
const MAX_CELLS = 5;

/** A page of a sheet's history, with records and fields as they are called now. */
export async function historyOf(sql: Sql, id: SheetId, query: HistoryQuery): Promise<HistoryEntry[]> {
  if (!(await findSheet(sql, id))) throw new Refusal('no-sheet', refusalText('thereNoSuchSheet'));
  const changes = await readHistory(sql, id, { ...query, limit: HISTORY_PAGE });
  const steps = changes.map((change) => cellSteps(change, query).slice(0, MAX_CELLS));
  const fields = await readFields(sql, id);
  const header = await findHeader(sql, id);
  const snapshots = (await readParts(sql, id)).filter((part) => part.kind === 'snapshot');
  const rows = new Map(
    (await findRows(sql, id, [...new Set(steps.flat().map(({ row }) => row))])).map((row) => [row.id, row]),
  );
  return changes.map(({ sequence, at, author, by, operations, inverse, counts }, index) => ({
    sequence,
    at,
    author,
    by,
    names: snapshots.flatMap(({ name, sequence: after }) => (after === sequence ? name : [])),
    says: changeWords(operations, { inverse, counts }),
    cells: itemAt(steps, index).map((step) => ({
      ...step,
      record: nameOf(rows.get(step.row), fields),
      label: labelOf(step.field, { fields, header }),
    })),
  }));
}

type EntryStep = Omit<CellStep, 'record' | 'label'>;

/** The contents of the cells before a change and after it, in the order in which it entered them. */
function cellSteps({ operations, inverse }: ToldChange, { field, row }: HistoryQuery): EntryStep[] {
  const steps = new Map<string, EntryStep>();
  for (const cell of entriesOf(operations)) {
    const key = `${cell.row} ${cell.field}`;
    if ((field === undefined || cell.field === field) && (row === undefined || cell.row === row))
      steps.set(key, { row: cell.row, field: cell.field, before: '', after: cell.input });
  }
  // The inverse goes back step by step: what it enters last was there first.
  for (const cell of entriesOf(inverse)) {
    const key = `${cell.row} ${cell.field}`;
    const step = steps.get(key);
    if (step) steps.set(key, { ...step, before: cell.input });
  }
  return [...steps.values()];
}

function nameOf(row: StoredRow | undefined, fields: readonly Field[]): string {
  if (!row) return 'a deleted record';
  return (
    fields.map(({ id }) => row.cells[id] ?? '').find((text) => /\p{L}/u.test(text) && !isFormulaInput(text)) ??
    'a record without a name'
  );
}

function labelOf(id: string, { fields, header }: { fields: readonly Field[]; header: StoredRow | undefined }): string {
  const column = fields.findIndex((field) => field.id === id);
  return column < 0 ? 'a deleted field' : header?.cells[id]?.trim() || columnLetters(column);
}
