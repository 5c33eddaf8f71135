import type { Hex } from '../../looks/look';
import type { FieldId } from '../../sheet/ids';
import type { Sheet } from '../../sheet/sheet';
import { BitSet } from '../../values/bit-set';
import { isInUse } from '../compile/reach';

/** Cells of records that were filled with one colour by hand: the same records in one or several fields. */
export interface HandFill {
  readonly fill: Hex;
  readonly fields: readonly FieldId[];
  /** True where all fields in use are filled, or the rows themselves. */
  readonly isRecord: boolean;
  readonly slots: BitSet;
  readonly count: number;
}

/** Groups that are listed, the largest first. */
const MAX_FILLS = 24;
/** Fewer filled cells say nothing. */
const MIN_CELLS = 2;

/**
 * The fills of records, by colour and by which records have them. What fills all records of a field, or the field itself,
 * is decoration. Cost: a look at each cell and row with a style of its own.
 */
export function handFills(sheet: Sheet): HandFill[] {
  const records = sheet.slotsWithRoles(['record']);
  const total = records.count();
  const groups = new Map<string, { readonly fill: Hex; readonly slots: BitSet; readonly columns: Set<number> }>();
  const add = (column: number, byFill: ReadonlyMap<Hex, BitSet>): void => {
    for (const [fill, slots] of byFill) {
      const name = `${fill} ${slots.words.join()}`;
      const known = groups.get(name);
      if (known) known.columns.add(column);
      else groups.set(name, { fill, slots, columns: new Set([column]) });
    }
  };
  const used = sheet.fields.flatMap((_, column) => (isInUse(sheet, column) ? [column] : []));
  for (const column of used) add(column, fillsOf(sheet.column(column).styles, records));
  const rows = fillsOf(
    [...sheet.rowsWithAbout()].map(([slot, about]) => [slot, about.style ?? {}] as const),
    records,
  );
  for (const column of used) add(column, rows);
  return [...groups.values()]
    .map(({ fill, slots, columns }) => ({
      fill,
      fields: [...columns].sort((a, b) => a - b).map((column) => sheet.field(column).id),
      isRecord: columns.size === used.length,
      slots,
      count: slots.count(),
    }))
    .filter(({ count }) => count >= MIN_CELLS && count < total)
    .sort((a, b) => b.count - a.count)
    .slice(0, MAX_FILLS);
}

/** The slots of records by the fill of their style. Sets are as large as they need to be, so that equal ones look alike. */
function fillsOf(styles: Iterable<readonly [number, { readonly fill?: Hex }]>, records: BitSet): Map<Hex, BitSet> {
  const found = new Map<Hex, BitSet>();
  for (const [slot, { fill }] of styles) {
    if (fill === undefined || !records.has(slot)) continue;
    const slots = found.get(fill) ?? new BitSet();
    slots.fit(records.words.length * 32);
    slots.set(slot, true);
    found.set(fill, slots);
  }
  return found;
}
