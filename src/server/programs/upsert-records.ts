import { createHash } from 'node:crypto';
import { generateNKeysBetween } from 'fractional-indexing';
import { nanoid } from 'nanoid';
import { insertTotals, TOTAL_WORD, totalOf } from '../../core/edit/totals';
import { labelFromInput } from '../../core/sheet/label-from-input';
import { itemAt } from '../../core/values/item-at';
import { LIMITS } from '../../core/exchange/limits';
import { OWN_ALL } from '../../core/sharing/role';
import type { CellInput, Operation, StoredRow } from '../../core/sheet/change';
import { newField, type Field } from '../../core/sheet/field';
import type { FieldId } from '../../core/sheet/ids';
import { isSameInput } from '../../core/sheet/is-same-input';
import { keysAt } from '../../core/sheet/layout/keys-at';
import { recordKey } from '../../core/sheet/record-key';
import { foldText } from '../../core/values/fold-text';
import { numberText } from '../../core/values/number-text';
import { readInput } from '../../core/values/read-input';
import { valueInput } from '../../core/values/value-input';
import type { UpsertBody, UpsertAnswer, RecordValue } from '../../protocol/programs/endpoints';
import type { Sql, Transaction } from '../database';
import { Refusal } from '../refusal';
import { commitComputed } from '../sheets/take-change';
import { readFields } from '../sql/field';
import { findAnswer, keepAnswer, type FoundProgram } from '../sql/program';
import { findHeader, findRows, readKeyedRows, type KeyedRow } from '../sql/row';
import { refusalText } from '../../texts/refusal-text';

interface UpsertInput {
  readonly program: FoundProgram;
  readonly body: UpsertBody;
  /** The same request sent again has the same key. */
  readonly idempotencyKey?: string | undefined;
}

/**
 * Enters records as one change: those whose key fields meet a record that is there change it, the others are added at
 * the end; without key fields all are added. A blank sheet takes their labels. Text is read as it would be typed, but
 * never as a formula. Throws a Refusal that names the place in the request.
 */
export async function upsertRecords(
  sql: Sql,
  { program, body, idempotencyKey: key }: UpsertInput,
): Promise<UpsertAnswer> {
  const asked = createHash('sha256').update(JSON.stringify(body)).digest();
  const by = { author: `program ${program.id}`, role: 'editor' as const, own: OWN_ALL };
  let counts = { inserted: 0, updated: 0, unchanged: 0 };
  // While nobody else can change the sheet, so that of a request that is sent twice at once the second finds the answer
  // to the first.
  const compute = async (tx: Transaction, head: number): Promise<readonly Operation[]> => {
    const known = key === undefined ? undefined : await findAnswer(tx, program, key);
    if (known && !known.asked.equals(asked)) throw new Refusal('bad-request', refusalText('idempotencyKeyWasUsed'));
    if (known) throw new Answered(known.answer as UpsertAnswer);
    const made = await operationsFor(tx, program, body);
    counts = made.counts;
    if (made.operations.length === 0) throw new Answered({ sequence: head, ...counts });
    if (key !== undefined) await keepAnswer(tx, program, { key, asked, answer: { sequence: head + 1, ...counts } });
    return made.operations;
  };
  try {
    return { sequence: await commitComputed(sql, { sheet: program.sheet, by, id: nanoid(), compute }), ...counts };
  } catch (error) {
    if (error instanceof Answered) return error.answer;
    throw error;
  }
}

/** There is an answer without a change: the request was taken before, or everything is there already. */
class Answered extends Error {
  constructor(readonly answer: UpsertAnswer) {
    super('no change is needed');
  }
}

/** A record that is there, or that is being added. */
interface KeyedRecord {
  readonly id: string;
  cells: Readonly<Record<FieldId, string>>;
  readonly isNew: boolean;
}

async function operationsFor(
  tx: Transaction,
  { sheet }: FoundProgram,
  { key: keyGiven = [], records, totals = {} }: UpsertBody,
) {
  const key = typeof keyGiven === 'string' ? [keyGiven] : keyGiven;
  const before = { fields: await readFields(tx, sheet), header: await findHeader(tx, sheet) };
  const blankHeader = before.header && (await isBlank(tx, sheet, before.header)) ? before.header : undefined;
  const named = blankHeader
    ? nameFields(before.fields, blankHeader, [...key, ...records.flatMap(Object.keys), ...Object.keys(totals)])
    : { ...before, operations: [] };
  const fieldOf = labels(named.fields, named.header);
  const keyFields = key.map((label) => fieldOf(label, 'key'));
  const given = records.map((record, at) =>
    Object.fromEntries(
      Object.entries(record).map(([label, value]) => [fieldOf(label, `records[${at}]`), inputOf(value)]),
    ),
  );
  const keys = given.map((cells) =>
    keyFields.length ? recordKey(keyFields.map((field) => cells[field] ?? '')) : null,
  );
  const blank = keys.findIndex((known) => known === null);
  if (keyFields.length && blank >= 0) throw new Refusal('bad-request', refusalText('recordsBlankHasNo', { blank }));
  const rows = await readKeyedRows(tx, sheet, keyFields);
  const byKey = await meet(tx, sheet, { rows, keys: new Set(keys) });
  const { set, added, counts } = merge(given, { keys, keyFields, byKey });
  // Beneath the last row that holds something, above totals: a new sheet has blank records to type in.
  const last = rows.findLastIndex((row) => row.role !== 'total' && (!row.isBlank || row.role !== 'record'));
  const orderKeys = keysAt(rows, last + 1, added.length);
  const inserted = added.map(({ id, cells }, at): StoredRow => ({
    id,
    key: itemAt(orderKeys, at),
    role: 'record',
    cells: filled(cells),
  }));
  const operations: Operation[] = [
    ...named.operations,
    ...(set.length ? [{ kind: 'set-cells' as const, cells: set }] : []),
    ...(inserted.length ? [{ kind: 'insert-rows' as const, rows: inserted }] : []),
  ];
  if (Object.keys(totals).length === 0) return { operations, counts };
  const inputs = Object.fromEntries(
    Object.entries(totals).map(([label, is]) => {
      const field = fieldOf(label, 'totals');
      return [field, totalOf(field, is)];
    }),
  );
  const below = await totalsUnder(tx, sheet, { rows, last, added: inserted, fields: named.fields, inputs });
  return { operations: [...operations, ...below], counts };
}

interface TotalsUnder {
  /** The rows that were there, and the place of the last that is not blank. */
  readonly rows: readonly KeyedRow[];
  readonly last: number;
  readonly added: readonly StoredRow[];
  readonly fields: readonly Field[];
  /** The formula of each field that has a total. */
  readonly inputs: Readonly<Record<FieldId, string>>;
}

/**
 * Puts totals into the row of totals, or makes one under the last record, where blank rows make way: what a total covers
 * ends above it.
 */
async function totalsUnder(
  tx: Transaction,
  sheet: string,
  { rows, last, added, fields, inputs }: TotalsUnder,
): Promise<Operation[]> {
  const there = rows.findLast((row) => row.role === 'total');
  if (there) {
    const [known] = await findRows(tx, sheet, [there.id]);
    const cells = Object.entries(inputs)
      .filter(([field, input]) => known?.cells[field] !== input)
      .map(([field, input]) => ({ row: there.id, field, input }));
    return cells.length ? [{ kind: 'set-cells', cells }] : [];
  }
  const all = [...rows.slice(0, last + 1), ...added, ...rows.slice(last + 1)];
  const label = fields.find(({ id }) => inputs[id] === undefined);
  const cells = { ...(label ? { [label.id]: TOTAL_WORD } : {}), ...inputs };
  return insertTotals(all, last + added.length, { id: nanoid(10), cells });
}

interface MergeInto {
  /** The key of each record that is given; null where it has none. */
  readonly keys: readonly (string | null)[];
  readonly keyFields: readonly FieldId[];
  /** The records that are there by their key; those that are added join them. */
  readonly byKey: Map<string, KeyedRecord>;
}

/** Merges records into those that are there: what is set in these, which are added, and how many of each. */
function merge(given: readonly Readonly<Record<FieldId, string>>[], { keys, keyFields, byKey }: MergeInto) {
  const set: CellInput[] = [];
  const added: KeyedRecord[] = [];
  const counts = { inserted: 0, updated: 0, unchanged: 0 };
  given.forEach((cells, at) => {
    const there = byKey.get(keys[at] ?? '');
    if (!there && Object.keys(filled(cells)).length === 0) counts.unchanged++;
    else if (!there) {
      const row: KeyedRecord = { id: nanoid(10), cells, isNew: true };
      added.push(row);
      const key = keys[at];
      if (typeof key === 'string') byKey.set(key, row);
      counts.inserted++;
    } else {
      // Equal values, also typed in another way, stay as they were typed.
      const different = Object.entries(cells).filter(
        ([field, input]) => !keyFields.includes(field) && !isSameInput(there.cells[field] ?? '', input),
      );
      if (different.length) counts.updated++;
      else counts.unchanged++;
      there.cells = { ...there.cells, ...Object.fromEntries(different) };
      if (!there.isNew) set.push(...different.map(([field, input]) => ({ row: there.id, field, input })));
    }
  });
  return { set, added, counts };
}

const isBlank = async (tx: Transaction, sheet: string, header: StoredRow): Promise<boolean> =>
  Object.keys(header.cells).length === 0 && (await readKeyedRows(tx, sheet, [])).every((row) => row.isBlank);

/** A sheet that is blank takes the labels that the first records bring, and more fields where it has too few. */
function nameFields(fields: readonly Field[], header: StoredRow, given: readonly string[]) {
  const folded = given.map((label) => foldText(label));
  const own = given.filter((label, at) => label.trim() !== '' && folded.indexOf(itemAt(folded, at)) === at);
  if (own.length > LIMITS.fields)
    throw new Refusal('bad-request', refusalText('recordsTheyHaveCount', { count: own.length, fields: LIMITS.fields }));
  const keys = generateNKeysBetween(fields.at(-1)?.key ?? null, null, Math.max(0, own.length - fields.length));
  const more = keys.map((key) => newField(nanoid(10), key));
  const all = [...fields, ...more];
  const cells = Object.fromEntries(own.map((label, at) => [itemAt(all, at).id, label]));
  const operations: Operation[] = [
    ...(more.length ? [{ kind: 'put-fields' as const, fields: more }] : []),
    { kind: 'set-cells', cells: Object.entries(cells).map(([field, input]) => ({ row: header.id, field, input })) },
  ];
  return { fields: all, header: { ...header, cells }, operations };
}

const filled = (cells: Readonly<Record<FieldId, string>>): Record<FieldId, string> =>
  Object.fromEntries(Object.entries(cells).filter(([, input]) => input !== ''));

/** The records that are there with one of these keys, each the first from the top. */
async function meet(
  tx: Transaction,
  sheet: string,
  { rows, keys }: { readonly rows: readonly KeyedRow[]; readonly keys: ReadonlySet<string | null> },
): Promise<Map<string, KeyedRecord>> {
  const found = new Map<string, string>();
  for (const { id, role, held } of rows) {
    const known = role === 'record' && held.length ? recordKey(held) : null;
    if (known !== null && keys.has(known) && !found.has(known)) found.set(known, id);
  }
  const cells = new Map((await findRows(tx, sheet, [...found.values()])).map((row) => [row.id, row.cells]));
  return new Map([...found].map(([known, id]) => [known, { id, cells: cells.get(id) ?? {}, isNew: false }]));
}

/**
 * Finds fields by label, as rule files do: exactly, else whatever case and accents. Refuses a label that is not there,
 * and says which are.
 */
function labels(
  fields: readonly Field[],
  header: { readonly cells: Readonly<Record<FieldId, string>> } | undefined,
): (label: string, place: string) => FieldId {
  const named = fields.map(({ id }, column) => ({
    id,
    label: labelFromInput(header?.cells[id], column),
  }));
  return (label, place) => {
    const found =
      named.find((field) => field.label === label) ?? named.find((field) => foldText(field.label) === foldText(label));
    if (found) return found.id;
    throw new Refusal(
      'bad-request',
      refusalText('placeThereNoField', { place, label, named: named.map((field) => field.label).join(', ') }),
    );
  };
}

/** A value of JSON as what would be typed for it. Programs enter no formulas. */
function inputOf(value: RecordValue): string {
  if (value === null) return '';
  if (typeof value === 'number') return numberText(value);
  if (typeof value === 'boolean') return value ? 'TRUE' : 'FALSE';
  return readInput(value).isFormula ? valueInput({ kind: 'text', text: value }) : value;
}
