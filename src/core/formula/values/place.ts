import type { Column } from '../../sheet/column/column';
import type { Sheet } from '../../sheet/sheet';
import type { Area, FormulaError, Scalar } from './formula-value';
import { TooMuchWork, workOfText, type WorkMeter } from './work-meter';

/** The environment of formulas. Clock and zone are the caller's, who may move `now` on. */
export interface FormulaContext {
  readonly sheet: Sheet;
  /** This moment as a serial date and time of day, in the sheet's time zone. */
  now: number;
  /**
   * Moved on whenever a cell changes: what was worked out in one epoch holds to its end. Without it nothing is kept.
   */
  epoch?: number;
  /** The budget of the sheet's formulas and rules. */
  readonly work: WorkMeter;
  /** Another sheet of the workspace by its name. */
  findSheet(name: string): Sheet | undefined;
  /** The meaning of a named range, as formula text such as `=B2:B9`. */
  findName(name: string): string | undefined;
  /** Called before cells are read that the formula's text does not name, so that they can be calculated first. */
  demand?(area: Area): void;
}

/**
 * Where a formula is being evaluated: the cell it stands in or is judged for. One object is used for many cells in
 * turn.
 */
export interface EvalCursor {
  readonly context: FormulaContext;
  /** The references of the formula, in order of writing. */
  refs: readonly BoundReference[];
  column: number;
  slot: number;
  /** Row of the cell, from 0; -1 until it is asked for, see `positionAt`. */
  position: number;
  /** Values read and made so far by this evaluation. */
  work: number;
}

/** A bound reference: what it refers to at a cursor. */
export interface BoundReference {
  areaAt(place: EvalCursor): Area | FormulaError;
  /** The value, where the reference is one cell: quicker than its area. */
  scalarAt(place: EvalCursor): Scalar;
  /**
   * The column and slot of a single cell, for reading numbers directly; undefined where it is more, elsewhere or gone.
   */
  readonly cell: BoundCell | undefined;
  /** True where it refers to the same cells from every place. */
  readonly isFixed: boolean;
}

/** A single cell of the formula's own sheet. */
export interface BoundCell {
  /** Its column, beside the place where it moves along; undefined outside the sheet. */
  storeAt(place: EvalCursor): Column | undefined;
  /** The row of the place, one and the same everywhere, or one that moves along with the place. */
  readonly row: 'same' | 'fixed' | 'moving';
  slotAt(place: EvalCursor): number;
}

export function newCursor(context: FormulaContext): EvalCursor {
  return { context, refs: [], column: 0, slot: -1, position: -1, work: 0 };
}

/** The row that the formula is evaluated in. */
export function positionAt(place: EvalCursor): number {
  if (place.position < 0 && place.slot >= 0) place.position = place.context.sheet.positionOf(place.slot);
  return Math.max(0, place.position);
}

/**
 * Counts values before they are read or made. Throws TooMuchWork where the formula, or all of the sheet, goes beyond
 * its budget.
 */
export function spend(place: EvalCursor, count: number): void {
  spendAgain(place, count);
  place.context.work.spend(count);
}

/** The cost of an element of an array that is made: it is read and stored. */
const MADE = 2;

/** Counts the elements of an array before it is made. */
export const spendMade = (place: EvalCursor, elements: number): void => spend(place, MADE * elements);

/**
 * Counts what was calculated before towards the formula that uses it: whether it is within its limit must not depend on
 * caches.
 */
export function spendAgain(place: EvalCursor, count: number): void {
  place.work += count;
  if (place.work > place.context.work.formulaLimit) throw new TooMuchWork('formula');
}

/** Counts what a text costs before it is looked through. */
export function spendText(place: EvalCursor, value: Scalar): void {
  if (typeof value === 'string' && value.length > 64) spend(place, workOfText(value.length));
}
