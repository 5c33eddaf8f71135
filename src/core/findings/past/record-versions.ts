import type { CellPast, PastInput, RowCourse } from '../../rules/evaluate/cell-past';
import type { FieldId, RowId } from '../../sheet/ids';
import type { RowRole } from '../../sheet/row-role';
import { Sheet } from '../../sheet/sheet';

/** What a row held from one moment to another (serial dates and times of day). */
export interface Version {
  readonly row: RowId;
  readonly key: string;
  readonly role: RowRole;
  readonly from: number;
  /** Infinite where it is so still. */
  readonly to: number;
}

/**
 * All that the rows of a sheet held which have changed since the past is known, as a sheet with one row a version: a
 * rule that looks at each record by itself is evaluated over all of the past at once. Versions of a row follow one
 * another. Rows keep the role and the place that they have now. Cost: setting each cell of each version once; kept while
 * the past is the same.
 */
export class RecordVersions {
  readonly sheet: Sheet;
  /** By slot of that sheet; nothing for those above the first record. */
  readonly versions: (Version | undefined)[] = [];
  /** Slots of the present sheet whose rows have been as they are since then. */
  readonly unchanged: number[] = [];

  constructor(
    private readonly present: Sheet,
    private readonly past: CellPast,
  ) {
    const all = new Sheet(present.fields, present.settings);
    this.sheet = all;
    // The first record stands where it does in the sheet: formulas are written for it.
    const { first } = present.recordSpan();
    for (const slot of present.order.slice(0, first)) {
      const { cells: _, ...row } = present.storedRow(slot);
      const made = this.sheet.appendRow({ ...row, id: `top ${row.id}` });
      const isHeader = row.role === 'header';
      for (const column of present.fields.keys())
        this.sheet.column(column).set(made, present.column(column).inputAt(slot), isHeader);
      this.versions[made] = undefined;
    }
    const byRow = new Map<RowId, Map<FieldId, readonly PastInput[]>>();
    past.forEachCell((row, field, inputs) => {
      const fields = byRow.get(row) ?? new Map<FieldId, readonly PastInput[]>();
      byRow.set(row, fields.set(field, inputs));
    });
    const moved = new Set(past.rowsMoved());
    const rows: RowId[] = [];
    for (const slot of present.order) {
      const row = present.rowId(slot);
      if (byRow.has(row) || moved.has(row)) rows.push(row);
      else this.unchanged.push(slot);
    }
    for (const row of moved) if (present.findSlot(row) === undefined) rows.push(row);
    const isRecord = (row: RowId): boolean => this.aboutOf(row, past.courseOf(row))?.role === 'record';
    for (const row of rows) if (isRecord(row)) this.addRow(row, byRow.get(row));
    for (const row of rows) if (!isRecord(row)) this.addRow(row, byRow.get(row));
  }

  private addRow(row: RowId, fields: ReadonlyMap<FieldId, readonly PastInput[]> | undefined): void {
    const { present, past, sheet } = this;
    const course = past.courseOf(row);
    const about = this.aboutOf(row, course);
    if (!about) return;
    const moments = new Set([past.knownFrom, ...course.map(({ at }) => at)]);
    for (const inputs of fields?.values() ?? []) for (const { until } of inputs) moments.add(until);
    const ordered = [...moments].filter((moment) => moment >= past.knownFrom).sort((a, b) => a - b);
    const slot = present.findSlot(row);
    for (const [at, from] of ordered.entries()) {
      if (!isThereAt(course, from)) continue;
      const made = sheet.appendRow({ id: `${row} ${at}`, key: '', role: about.role });
      for (const [column, { id }] of present.fields.entries()) {
        const held = fields?.get(id)?.find(({ until }) => until > from);
        const now = slot === undefined ? '' : present.column(column).inputAt(slot);
        sheet.column(column).set(made, held?.input ?? now, about.role === 'header');
      }
      this.versions[made] = { row, ...about, from, to: ordered[at + 1] ?? Infinity };
    }
  }

  private aboutOf(row: RowId, course: readonly RowCourse[]): Pick<Version, 'key' | 'role'> | undefined {
    const { present } = this;
    const slot = present.findSlot(row);
    if (slot === undefined) return course.findLast(({ was }) => was)?.was;
    return { key: present.rowKey(slot), role: present.roleAt(slot) };
  }
}

/** Whether a row was there from a moment on: before its first event it was not, where that event is its coming. */
function isThereAt(course: readonly RowCourse[], moment: number): boolean {
  const last = course.findLast(({ at }) => at <= moment);
  return last?.isThere ?? course[0]?.isThere !== true;
}
