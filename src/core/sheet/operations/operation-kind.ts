import type Joi from 'joi';
import type { CellInput, Operation } from '../change';
import type { Applied } from '../effect';
import type { SheetStore } from '../sheet-store';

export type OperationName = Operation['kind'];
export type OperationOf<K extends OperationName> = Extract<Operation, { readonly kind: K }>;

/** The part of a sheet that a reader without rules sees. */
export interface Visibility {
  /** Columns that are sent, from the left. */
  readonly columns: readonly number[];
  /** True where what a cell holds is for this reader, formulas aside. */
  isVisible(column: number, slot: number): boolean;
  /** The content of a cell for this reader: what was typed, or instead of a formula its result. */
  inputAt(column: number, slot: number): string;
}

export interface WordsContext {
  /** Ids of rules that the change made, rather than changed. */
  readonly made: ReadonlySet<string>;
  /** How many cells or rows it is about, where not all of them are given. */
  readonly count?: number | undefined;
}

/**
 * Schemas of the lists that operations hold, each required and with a bounded length. The protocol makes them, since
 * those of rules and of formulas are on floors above this one.
 */
export interface ListSchemas {
  readonly inputs: Joi.Schema;
  readonly styles: Joi.Schema;
  readonly rows: Joi.Schema;
  readonly rowChanges: Joi.Schema;
  readonly fields: Joi.Schema;
  readonly parts: Joi.Schema;
  readonly partIds: Joi.Schema;
  readonly rules: Joi.Schema;
  /** Ids of rows, fields or rules. */
  readonly ids: Joi.Schema;
  /** For what is no list. */
  readonly joi: Joi.Root;
}

/** Everything in memory that an operation means. What it means in the database is in server/sheets/operations. */
export interface OperationKind<O extends Operation> {
  /** What it holds besides its name, as it arrives from outside. */
  schema(lists: ListSchemas): { readonly [K in Exclude<keyof O, 'kind'>]: Joi.Schema };
  /** Applies it, and gives its effects and its inverse. Missing cells, rows and fields are skipped. */
  apply(sheet: SheetStore, operation: O): Applied;
  /** Its effect in a few words. */
  words(operation: O, context: WordsContext): readonly string[];
  /** Cells or rows that it touches one by one; 1 for an operation on anything else. */
  size(operation: O): number;
  /** The part of it that a reader without rules gets, after it was applied to `sheet`. */
  restrict(operation: O, view: Visibility, sheet: SheetStore): readonly Operation[];
  /** The inputs that it sets, for operations that do. */
  entries?(operation: O): readonly CellInput[];
  /** True where it holds rules, fields or parts, whose count and length a sheet limits. */
  readonly describes?: boolean;
}
