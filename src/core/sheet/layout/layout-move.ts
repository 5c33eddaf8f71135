import type { Operation } from '../change';
import { byKey } from '../compare-keys';
import type { FieldId, RowId } from '../ids';
import type { Sheet } from '../sheet';

/** Where rows, or columns, go. Places beyond the sheet stay. */
export interface AxisMove {
  /** The new place of what stands in an old one; undefined where it is removed. */
  readonly to: (place: number) => number | undefined;
  /** The old place of the item in a new place; undefined where it is new. */
  readonly from: (place: number) => number | undefined;
  /** True for what is itself moved, and not only makes room. */
  readonly isMoved: (place: number) => boolean;
}

export interface LayoutMove {
  readonly row: AxisMove;
  readonly column: AxisMove;
}

/** Rows from top to bottom and fields from left to right, by id. */
export interface Layout {
  readonly rows: readonly RowId[];
  readonly fields: readonly FieldId[];
}

/** How the rows and fields of a sheet stand now. */
export const layoutOf = (sheet: Sheet): Layout => ({
  rows: sheet.order.map((slot) => sheet.rowId(slot)),
  fields: sheet.fields.map(({ id }) => id),
});

/** How they will stand after some operations that are not applied yet. */
export function layoutAfter(sheet: Sheet, operations: readonly Operation[]): Layout {
  let rows: Placed[] = sheet.order.map((slot) => ({ id: sheet.rowId(slot), key: sheet.rowKey(slot) }));
  let fields: Placed[] = [...sheet.fields];
  for (const operation of operations) {
    if (operation.kind === 'insert-rows') rows = placed(rows, operation.rows);
    else if (operation.kind === 'remove-rows') rows = without(rows, operation.rows);
    else if (operation.kind === 'change-rows') rows = placed(rows, moved(rows, operation.rows));
    else if (operation.kind === 'put-fields') fields = placed(fields, operation.fields);
    else if (operation.kind === 'remove-fields') fields = without(fields, operation.fields);
  }
  return { rows: rows.map(({ id }) => id), fields: fields.map(({ id }) => id) };
}

/**
 * Where operations that are not applied yet will move the rows and fields of a sheet; null where everything stays in
 * its place.
 */
export function layoutMove(sheet: Sheet, operations: readonly Operation[]): LayoutMove | null {
  if (!operations.some(({ kind }) => MOVING.has(kind))) return null;
  const [before, after] = [layoutOf(sheet), layoutAfter(sheet, operations)];
  const ids = operations.flatMap((operation): readonly string[] => {
    if (operation.kind === 'change-rows')
      return operation.rows.filter(({ key }) => key !== undefined).map(({ id }) => id);
    return operation.kind === 'put-fields' ? operation.fields.map(({ id }) => id) : [];
  });
  const moved = new Set<string>(ids);
  const row = axisMove(before.rows, after.rows, moved);
  const column = axisMove(before.fields, after.fields, moved);
  return row || column ? { row: row ?? STILL, column: column ?? STILL } : null;
}

const MOVING: ReadonlySet<Operation['kind']> = new Set([
  'insert-rows',
  'remove-rows',
  'change-rows',
  'put-fields',
  'remove-fields',
]);

const STILL: AxisMove = { to: (place) => place, from: (place) => place, isMoved: () => false };

interface Placed {
  readonly id: string;
  readonly key: string;
}

const without = <T extends Placed>(items: readonly T[], ids: readonly string[]): T[] => {
  const gone = new Set(ids);
  return items.filter(({ id }) => !gone.has(id));
};

/** Items put among others by their keys; those that are there already move. */
function placed(items: readonly Placed[], fresh: readonly Placed[]): Placed[] {
  if (fresh.length === 0) return [...items];
  return [
    ...without(
      items,
      fresh.map(({ id }) => id),
    ),
    ...fresh,
  ].sort(byKey);
}

/** Rows that are there and get another key. */
function moved(rows: readonly Placed[], changes: readonly { readonly id: string; readonly key?: string }[]): Placed[] {
  const keys = new Map(changes.flatMap(({ id, key }) => (key === undefined ? [] : [[id, key] as const])));
  return keys.size === 0 ? [] : rows.flatMap(({ id }) => (keys.has(id) ? { id, key: keys.get(id)! } : []));
}

function axisMove(before: readonly string[], after: readonly string[], moved: ReadonlySet<string>): AxisMove | null {
  if (before.every((id, at) => after[at] === id)) return null;
  const placeBefore = new Map(before.map((id, at) => [id, at]));
  const placeAfter = new Map(after.map((id, at) => [id, at]));
  return {
    to: (place) => (place < before.length ? placeAfter.get(before[place] ?? '') : place),
    from: (place) => placeBefore.get(after[place] ?? ''),
    isMoved: (place) => moved.has(before[place] ?? ''),
  };
}

/**
 * The new place of a span. It holds on to members that stay: items inserted between belong to it from now on, items
 * moved elsewhere or removed do not. Where all of it is moved, as by sorting, it moves along if it stays together, else
 * it stays where it is. Undefined where all of it is removed.
 */
export function moveSpan([first, last]: readonly [number, number], move: AxisMove): [number, number] | undefined {
  const places = Array.from({ length: last - first + 1 }, (_, at) => first + at).filter(
    (place) => move.to(place) !== undefined,
  );
  if (places.length === 0) return undefined;
  const isMember = (place: number): boolean => {
    const before = move.from(place);
    return before !== undefined && before >= first && before <= last;
  };
  const still = places.filter((place) => !move.isMoved(place));
  let [low, high] = extent(still.length ? still : places, move);
  if (still.length === 0 && high - low + 1 !== places.length) return [first, last];
  while (isMember(low - 1)) low--;
  while (isMember(high + 1)) high++;
  return [low, high];
}

function extent(places: readonly number[], move: AxisMove): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const place of places) {
    const at = move.to(place)!;
    low = Math.min(low, at);
    high = Math.max(high, at);
  }
  return [low, high];
}
