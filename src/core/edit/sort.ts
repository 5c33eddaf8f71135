import { itemAt } from '../values/item-at';
import type { RuleId } from '../sheet/ids';
import type { Sheet } from '../sheet/sheet';
import type { CellValue } from '../values/cell-value';
import { countWords, type Editor } from './editor';

/** By the values of a field, or by a rule: `falling` sorts the records that it paints to the top. */
export type SortKey = { readonly order: 'rising' | 'falling' } & (
  | { readonly column: number }
  | { readonly rule: RuleId }
);

interface Sort {
  readonly by: readonly SortKey[];
  /** Rows to sort; all records where absent. */
  readonly rows?: { readonly top: number; readonly bottom: number };
}

/**
 * Sorts records by one field, ties by the next; the sort is stable. Numbers and dates come before text, text before
 * TRUE and FALSE, errors after them; blanks are last in both orders. Other rows stay where they are.
 */
export const sortRows: Editor<Sort> = {
  operations(sheet, { by, rows }, { paintedBy }) {
    const slots = sheet.order.filter(
      (slot, position) =>
        sheet.roleAt(slot) === 'record' && (!rows || (position >= rows.top && position <= rows.bottom)),
    );
    const keys = by.map((key) => ({
      ...('column' in key ? comparable(sheet, key.column, slots) : painted(sheet, slots, paintedBy?.(key.rule))),
      sign: key.order === 'falling' ? -1 : 1,
    }));
    const sorted = slots.toSorted(comparison(keys));
    const moved = sorted.flatMap((slot, at) => {
      const displaced = itemAt(slots, at);
      return slot === displaced ? [] : { id: sheet.rowId(slot), key: sheet.rowKey(displaced) };
    });
    return moved.length ? [{ kind: 'change-rows', rows: moved }] : [];
  },
  says: ({ by }) =>
    by.length === 1 && 'rule' in itemAt(by, 0) ? 'sort by a rule' : `sort by ${countWords(by.length, 'field')}`,
};

/** Some records in rising order of one field, as sorting the sheet by it would bring them. */
export const inOrder = (sheet: Sheet, column: number, slots: readonly number[]): number[] =>
  slots.toSorted(comparison([{ ...comparable(sheet, column, slots), sign: 1 }]));

/** As a dictionary has them: accents and case decide last, and numbers within texts count as numbers. */
const TEXTS = new Intl.Collator('en', { numeric: true });

const RANK: Record<CellValue['kind'], number> = { number: 0, date: 0, text: 1, logical: 2, error: 3, blank: 4 };

/**
 * One field's cells in a form that compares quickly: what kind they are, and their number or their place among the
 * distinct texts.
 */
interface Comparable {
  readonly ranks: Uint8Array;
  readonly values: Float64Array;
}

/** Records that a rule paints count as 1, the others as 0. */
function painted(
  sheet: Sheet,
  slots: readonly number[],
  isPainted: ((slot: number) => boolean) | undefined,
): Comparable {
  const values = new Float64Array(sheet.slotCount);
  for (const slot of slots) values[slot] = Number(isPainted?.(slot) ?? false);
  return { ranks: new Uint8Array(sheet.slotCount), values };
}

function comparable(sheet: Sheet, column: number, slots: readonly number[]): Comparable {
  const store = sheet.column(column);
  const ranks = new Uint8Array(sheet.slotCount);
  const values = new Float64Array(sheet.slotCount);
  const texts = new Map<string, number[]>();
  for (const slot of slots) {
    const { kind } = store.valueAt(slot);
    ranks[slot] = RANK[kind];
    if (RANK[kind] === 0) values[slot] = store.numberAt(slot);
    else if (kind !== 'blank') addTo(texts, store.entryAt(slot).shown, slot);
  }
  // Texts that the collation takes for equal share a place, so that the next field decides between them.
  let [before, place] = ['', 0];
  [...texts]
    .sort(([one], [other]) => TEXTS.compare(one, other))
    .forEach(([text, slotsOfText], at) => {
      if (at > 0 && TEXTS.compare(before, text) !== 0) place = at;
      before = text;
      for (const slot of slotsOfText) values[slot] = place;
    });
  return { ranks, values };
}

function comparison(keys: readonly (Comparable & { readonly sign: number })[]): (a: number, b: number) => number {
  return (a, b) => {
    for (const { ranks, values, sign } of keys) {
      const [one, other] = [ranks[a]!, ranks[b]!];
      const blanks = Number(one === RANK.blank) - Number(other === RANK.blank);
      if (blanks !== 0) return blanks;
      const order = one - other || values[a]! - values[b]!;
      if (order !== 0) return order * sign;
    }
    return 0;
  };
}

function addTo(lists: Map<string, number[]>, name: string, member: number): void {
  const list = lists.get(name);
  if (list) list.push(member);
  else lists.set(name, [member]);
}
