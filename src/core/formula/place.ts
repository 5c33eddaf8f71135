import type { Sheet } from '../sheet/sheet';
import { type Area, FormulaError } from './formula-value';
import type { BoundReference } from './bind-reference';

/** What a formula may ask of the world around it. Clock and zone are the caller's, who may move `now` on. */
export interface FormulaContext {
  readonly sheet: Sheet;
  /** This moment as a serial date and time of day, in the sheet's time zone. */
  now: number;
  /** Moved on whenever a cell changes: what was worked out in one epoch holds to its end. Without it nothing is kept. */
  epoch?: number;
  /** Another sheet of the workspace by its name. */
  findSheet(name: string): Sheet | undefined;
  /** What a named range stands for, as formula text such as `=B2:B9`. */
  findName(name: string): string | undefined;
  /** Called before cells are read that the formula's text does not name, so that they can be calculated first. */
  demand?(area: Area): void;
}

/** Where a formula is being evaluated: the cell it stands in or is judged for. One object is used for many cells in turn. */
export interface Place {
  readonly context: FormulaContext;
  /** The references of the formula, in order of writing. */
  refs: readonly BoundReference[];
  column: number;
  slot: number;
  /** Row of the cell, from 0; -1 until it is asked for, see `positionAt`. */
  position: number;
  /** Cells read so far by this evaluation. */
  read: number;
}

/** Cells that one formula may read. */
const MOST_CELLS = 10_000_000;

export function newPlace(context: FormulaContext): Place {
  return { context, refs: [], column: 0, slot: -1, position: -1, read: 0 };
}

/** The row that the formula is evaluated in. */
export function positionAt(place: Place): number {
  if (place.position < 0 && place.slot >= 0) place.position = place.context.sheet.positionOf(place.slot);
  return Math.max(0, place.position);
}

/** Counts the cells of an area as read; an error where the formula has read too many. */
export function admit(area: Area, place: Place): Area | FormulaError {
  place.read += area.rows * area.columns;
  return place.read > MOST_CELLS ? FormulaError.value : area;
}
