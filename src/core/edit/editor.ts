import { inDigits } from '../values/counted';
import type { StoredRule } from '../rules/shape/stored-rule';
import type { CellRange } from '../sheet/address';
import type { RuleId } from '../sheet/ids';
import type { Operation } from '../sheet/change';
import type { Sheet } from '../sheet/sheet';

/** The environment of an editor. */
export interface EditTools {
  /** An id that nothing else has. */
  newId(): string;
  /** Whether a rule gives a record a look; nothing is painted by a rule that is gone. */
  paintedBy?(rule: RuleId): (slot: number) => boolean;
  /** The rules as the legend shows them, in order of precedence; those of the sheet where absent. */
  rules?(): readonly StoredRule[];
}

/** A kind of edit: its operations on a sheet, and its name for undo. */
export interface Editor<E> {
  /** Empty where there is nothing to do. Throws an EditRefusal where it cannot be done. */
  operations(sheet: Sheet, edit: E, tools: EditTools): readonly Operation[];
  says(edit: E): string;
}

/** Why something cannot be done, in words for the person who tried. */
export class EditRefusal extends Error {}

/** Cells that one edit may touch one by one. */
const MAX_CELLS = 200_000;

/** Throws an EditRefusal where an area has too many cells to be edited one by one. */
export function checkSize({ left, top, right, bottom }: CellRange): void {
  const cells = (right - left + 1) * (bottom - top + 1);
  if (cells > MAX_CELLS)
    throw new EditRefusal(
      `That is ${inDigits(cells)} cells; at most ${inDigits(MAX_CELLS)} are changed at once. Select whole fields, or fewer rows.`,
    );
}

/** "1 row", "3 rows". */
export const countWords = (count: number, one: string, several = `${one}s`): string =>
  count === 1 ? `1 ${one}` : `${count} ${several}`;
