import type { Sheet } from '../sheet/sheet';
import type { ReadColumn } from './reach';

/** What a condition may ask of the sheet while it is compiled and run. */
export interface CompileContext {
  readonly sheet: Sheet;
  /** The cells that the rule reads. */
  readonly cells: readonly ReadColumn[];
}
