import { entriesOf } from '../../sheet/operations/registry';
import type { CellValue } from '../../values/cell-value';
import { readInput } from '../../values/read-input';
import type { Operation } from '../../sheet/change';
import type { FieldId, RowId } from '../../sheet/ids';
import { snapshotKey } from '../../sheet/sheet-part';
import type { Sheet } from '../../sheet/sheet';
import { serialInZone } from '../../values/dates/serial-in-zone';
import type { CellHistory } from '../compile/cell-history';

/** A change in the past, by its inverse. */
export interface PastChange {
  /** Its place in the log. */
  readonly sequence: number;
  /** When it was made, milliseconds of the Unix epoch. */
  readonly at: number;
  readonly inverse: readonly Operation[];
}

const MS_A_DAY = 86_400_000;

/** The content of a cell until a moment (a serial date and time of day). */
interface PastInput {
  readonly until: number;
  readonly input: string;
}

/**
 * The past contents of a sheet's cells, put together from the changes that were made. Without a known change a cell is
 * as it is now. For a cell that is younger than the moment asked for, since its row or the sheet is, the first content
 * counts. Results of formulas have no past.
 */
export class CellPast implements CellHistory {
  private readonly cells = new Map<FieldId, Map<RowId, PastInput[]>>();
  /** When rows were inserted, where that is known. */
  private readonly inserted = new Map<RowId, number>();
  private begins = Infinity;
  /** When the known changes were made, by their sequence. */
  private readonly moments = new Map<number, number>();
  /** True where all changes since the sheet was made are known. */
  private isWhole = false;

  constructor(private readonly sheet: Sheet) {}

  /**
   * The moment (milliseconds of the Unix epoch) since which every change is known, and whether that is since the sheet
   * was made.
   */
  knowsFrom(epochMs: number, isWhole: boolean): void {
    this.begins = this.serial(epochMs);
    this.isWhole = isWhole;
  }

  /** Adds a change that was made. Changes may come in any order, but those of one moment one after another. */
  add({ sequence, at, inverse }: PastChange): void {
    const until = this.serial(at);
    this.moments.set(sequence, until);
    for (const { row, field, input } of entriesOf(inverse)) this.hold(field, row, { until, input });
    for (const operation of inverse)
      if (operation.kind === 'remove-rows')
        for (const row of operation.rows) this.inserted.set(row, Math.min(until, this.inserted.get(row) ?? until));
  }

  private hold(field: FieldId, row: RowId, held: PastInput): void {
    let rows = this.cells.get(field);
    if (!rows) this.cells.set(field, (rows = new Map<RowId, PastInput[]>()));
    const known = rows.get(row);
    if (!known) rows.set(row, [held]);
    else known.splice(known.findLastIndex(({ until }) => until <= held.until) + 1, 0, held);
  }

  valueBefore(column: number, slot: number, moment: number): CellValue | undefined {
    const { sheet } = this;
    if (Number.isNaN(moment) || (moment < this.begins && !this.isWhole) || sheet.column(column).formulas.has(slot))
      return undefined;
    const row = sheet.rowId(slot);
    const isYoung = moment < Math.max(this.begins, this.inserted.get(row) ?? -Infinity);
    const known = this.cells.get(sheet.field(column).id)?.get(row);
    const held = known?.find(({ until, input }) => until > moment && !(isYoung && input === ''));
    if (!held) return sheet.column(column).valueAt(slot);
    const { value, isFormula } = readInput(held.input, sheet.settings);
    return isFormula ? undefined : value;
  }

  /** The moment of a snapshot by its name; NaN where it is further back than is known. */
  momentOf(name: string): number | undefined {
    const part = this.sheet.parts.get(snapshotKey(name));
    if (part?.kind !== 'snapshot') return undefined;
    return this.moments.get(part.sequence) ?? (this.isWhole ? this.begins : NaN);
  }

  private serial(epochMs: number): number {
    return serialInZone(epochMs, this.sheet.settings.zone) + (epochMs % 1000) / MS_A_DAY;
  }
}
