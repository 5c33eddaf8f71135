import { entriesOf } from '../../sheet/operations/registry';
import type { CellValue } from '../../values/cell-value';
import { readInput } from '../../values/read-input';
import type { Operation } from '../../sheet/change';
import type { FieldId, RowId } from '../../sheet/ids';
import type { RowRole } from '../../sheet/row-role';
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
/** Clocks are set at whole quarters of an hour: within one, a zone has the same distance from UTC. */
const MS_A_QUARTER = 900_000;

/** The content of a cell until a moment (a serial date and time of day). */
export interface PastInput {
  readonly until: number;
  readonly input: string;
}

/** From a moment on a row is there, or it is not. */
export interface RowCourse {
  readonly at: number;
  readonly isThere: boolean;
  /** Where it stood, and its role, of a row that went. */
  readonly was?: { readonly key: string; readonly role: RowRole };
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
  /** When rows came and went. */
  private readonly courses = new Map<RowId, RowCourse[]>();
  private begins = Infinity;
  private latest = -Infinity;
  /** When the known changes were made, by their sequence. */
  private readonly moments = new Map<number, number>();
  /** True where all changes since the sheet was made are known. */
  private isWhole = false;
  /** By quarter of an hour since the epoch: how many days the clocks of the zone are ahead of it. */
  private readonly ahead = new Map<number, number>();

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
    this.latest = Math.max(this.latest, until);
    // An inverse takes the last step back first: of a cell that was set twice, the last entry is what it held before.
    const before = new Map(entriesOf(inverse).map((entry) => [`${entry.row} ${entry.field}`, entry]));
    for (const { row, field, input } of before.values()) this.hold(field, row, { until, input });
    for (const operation of inverse)
      if (operation.kind === 'remove-rows')
        for (const row of operation.rows) {
          this.inserted.set(row, Math.min(until, this.inserted.get(row) ?? until));
          this.course(row, { at: until, isThere: true });
        }
      else if (operation.kind === 'insert-rows')
        for (const { id, key, role, cells } of operation.rows) {
          this.course(id, { at: until, isThere: false, was: { key, role } });
          for (const field of this.sheet.fields) this.hold(field.id, id, { until, input: cells[field.id] ?? '' });
        }
  }

  private course(row: RowId, event: RowCourse): void {
    const known = this.courses.get(row);
    if (known) known.push(event);
    else this.courses.set(row, [event]);
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

  /** The moment (a serial date and time of day) since which every change is known; infinite where none is. */
  get knownFrom(): number {
    return this.begins;
  }

  /** When the last change was made, as a serial date and time of day. */
  get knownUntil(): number {
    return this.latest;
  }

  /** Rows that have come or gone. */
  rowsMoved(): Iterable<RowId> {
    return this.courses.keys();
  }

  /** When a row came and went, in order; nothing where it has been there since the past is known. */
  courseOf(row: RowId): readonly RowCourse[] {
    return [...(this.courses.get(row) ?? [])].sort((a, b) => a.at - b.at);
  }

  /** Calls `visit` with what each cell held before, each content until a moment, in order; rows that are gone too. */
  forEachCell(visit: (row: RowId, field: FieldId, inputs: readonly PastInput[]) => void): void {
    for (const [field, rows] of this.cells) for (const [row, inputs] of rows) visit(row, field, inputs);
  }

  /** A moment by the clocks of the sheet's zone. Asking for them takes longer than all else here: once a quarter. */
  private serial(epochMs: number): number {
    const quarter = Math.floor(epochMs / MS_A_QUARTER);
    let ahead = this.ahead.get(quarter);
    if (ahead === undefined) {
      const began = quarter * MS_A_QUARTER;
      this.ahead.set(quarter, (ahead = serialInZone(began, this.sheet.settings.zone) - began / MS_A_DAY));
    }
    return ahead + epochMs / MS_A_DAY;
  }
}
