import { columnLetters } from './address';

/** What the input of a header cell shows: an apostrophe that keeps it text is not part of it. */
export const textOfInput = (input: string): string => input.replace(/^'/, '');

/** The label that a header cell gives its field; the letters of the column where the cell is blank or missing. */
export const labelFromInput = (input: string | undefined, column: number): string =>
  textOfInput(input ?? '').trim() || columnLetters(column);
