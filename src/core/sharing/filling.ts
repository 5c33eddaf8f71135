import type { Rule } from '../rules/shape/rule';
import type { Field } from '../sheet/field';
import type { FieldId, RowId } from '../sheet/ids';
import type { RowRole } from '../sheet/row-role';
import type { Filling, SheetPart } from '../sheet/sheet-part';
import { keyFields } from './key-fields';
import { mayEnter, ONLY_READ, type Own, type Reader } from './role';

/** A sheet of which nothing has been opened yet. */
export const NOTHING_OPEN: Filling = {
  id: 'filling',
  kind: 'filling',
  open: [],
  openCells: [],
  kept: [],
  outcomes: 'leaving',
  showsOthers: false,
};

/** The settings for fillers. */
export function fillingOf(parts: Iterable<SheetPart>): Filling {
  for (const part of parts) if (part.kind === 'filling') return part;
  return NOTHING_OPEN;
}

/** True where fillers have something to fill in: a field or a single cell is open. */
export const hasOpenCells = ({ open, openCells }: Filling): boolean => open.length + openCells.length > 0;

export const ONLY_VALUES = 'Only values can be entered here; everything else is for its owner and editors.';
export const NO_FORMULAS = 'Formulas cannot be entered here. Put an apostrophe before the = if it is meant as text.';

/** UTF-16 code units of what a filler may enter in a cell. */
export const MAX_FILLED = 4000;

/** A cell as fillers are judged by it. */
export interface FilledCell {
  readonly row: RowId;
  readonly role: RowRole;
  readonly field: FieldId;
}

/** Which cells are open, for whom, and which fields are hidden from fillers. */
export class OpenCells {
  private readonly open: ReadonlySet<FieldId>;
  private readonly single: ReadonlySet<string>;

  constructor(
    readonly filling: Filling,
    /** Fields that no filler gets; what is in them is never open. */
    private readonly kept: ReadonlySet<FieldId>,
  ) {
    this.open = new Set(filling.open);
    this.single = new Set(filling.openCells.map(({ row, field }) => `${row} ${field}`));
  }

  /** True for a cell in which fillers type: any of them, or the one whose own it is. */
  isOpen({ row, role, field }: FilledCell): boolean {
    if (this.kept.has(field)) return false;
    return (role === 'record' && this.open.has(field)) || this.single.has(`${row} ${field}`);
  }

  /** True for a field in all of whose records fillers type. */
  isOpenField(field: FieldId): boolean {
    return this.open.has(field) && !this.kept.has(field);
  }

  /** Why somebody may not type into a cell, in words for them; null where they may. */
  lockOf(cell: FilledCell, { role, own }: Reader): string | null {
    if (!mayEnter(role)) return ONLY_READ;
    if (!this.isOpen(cell))
      return 'This cell is not open for filling in. The open ones are marked with a line at their left.';
    if (!isOwn(cell, own))
      return 'This cell is for somebody else to fill in. Yours are marked with a line at their left.';
    return null;
  }
}

/** True for what is among a filler's own. */
export const isOwn = ({ row, field }: { readonly row: RowId; readonly field: FieldId }, own: Own): boolean =>
  (own.fields === null || own.fields.includes(field)) && (own.rows === null || own.rows.includes(row));

/** Fields that fillers and viewers never get: hidden ones, those of answer keys, and those that the owner keeps. */
export const keptFields = (filling: Filling, rules: readonly Rule[], fields: readonly Field[]): Set<FieldId> =>
  new Set([...filling.kept, ...fields.flatMap(({ id, hidden }) => (hidden ? id : [])), ...keyFields(rules, fields)]);
