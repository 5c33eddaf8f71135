/**
 * The error values of the formula language (ISO/IEC 26300, part 4), and ours for circular references and for too much
 * work.
 */
export const ERROR_WORDS = [
  '#N/A',
  '#DIV/0!',
  '#VALUE!',
  '#REF!',
  '#NAME?',
  '#NUM!',
  '#NULL!',
  '#CYCLE!',
  '#LIMIT!',
] as const;
export type ErrorWord = (typeof ERROR_WORDS)[number];
export const isErrorWord = (text: string): text is ErrorWord => ERROR_WORDS.some((word) => word === text);

/** The word that stands for an error in files for other programs, which know only those of the standard. */
export const standardErrorWord = (word: ErrorWord): ErrorWord =>
  word === '#CYCLE!' || word === '#LIMIT!' ? '#VALUE!' : word;

/** The value of a cell. `serial` counts days since 1899-12-30, the time of day as its fraction. */
export type CellValue =
  | { readonly kind: 'blank' }
  | { readonly kind: 'number'; readonly number: number }
  | { readonly kind: 'text'; readonly text: string }
  | { readonly kind: 'logical'; readonly logical: boolean }
  | { readonly kind: 'date'; readonly serial: number }
  | { readonly kind: 'error'; readonly error: ErrorWord };

export type ValueKind = CellValue['kind'];

export const BLANK: CellValue = { kind: 'blank' };

/** The number or the date serial of a value; NaN where it is neither. */
export const numberOf = (value: CellValue): number =>
  value.kind === 'number' ? value.number : value.kind === 'date' ? value.serial : NaN;

/** One-byte tag of each kind of value, as columns keep it. */
export const TAG = { blank: 0, number: 1, text: 2, logical: 3, date: 4, error: 5 } as const satisfies Record<
  ValueKind,
  number
>;
