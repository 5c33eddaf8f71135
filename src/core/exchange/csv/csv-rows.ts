import { inDigits } from '../../values/counted';
import Papa from 'papaparse';
import { BadFile } from '../bad-file';
import { LIMITS } from '../limits';

export const SEPARATORS = [',', ';', '\t', '|'] as const;
export type Separator = (typeof SEPARATORS)[number];
export const QUOTES = ['"', "'", ''] as const;
export type Quote = (typeof QUOTES)[number];

export interface CsvForm {
  readonly separator: Separator;
  /** Around cells that hold a separator, a line end or a quote; empty where quotes are letters like others. */
  readonly quote: Quote;
}

/**
 * Reads CSV (RFC 4180) piece by piece, in memory for one piece and the row that it ends in. A piece is cut after the
 * last line end that is not between quotes: those are where the quotes before them are even in number, since a quote
 * inside a cell is doubled. Rows come as they are, long or short; a blank line is a row of one empty cell; line ends
 * inside cells become LF. Throws a BadFile.
 */
export class CsvRows {
  private rest = '';
  private linesBefore = 0;
  private isBegun = false;

  constructor(private readonly form: CsvForm) {}

  /** The rows that are complete with this piece. */
  push(piece: string): string[][] {
    let letters = this.rest + piece;
    if (!this.isBegun && letters !== '') {
      letters = letters.replace(/^\ufeff/, '');
      this.isBegun = true;
    }
    // A CR at the end may be the first half of a line end.
    const held = letters.endsWith('\r') ? '\r' : '';
    if (letters.includes('\r')) letters = letters.slice(0, letters.length - held.length).replace(/\r\n?/g, '\n');
    const end = lastLineEnd(letters, this.form.quote);
    this.rest = letters.slice(end) + held;
    if (this.rest.length > LIMITS.line) this.refuseLong();
    return end === 0 ? [] : this.read(letters.slice(0, end));
  }

  /** The last row, where the text does not end with a line end. */
  end(): string[][] {
    const last = this.rest.replace(/\r\n?/g, '\n');
    this.rest = '';
    return last === '' ? [] : this.read(last);
  }

  private read(letters: string): string[][] {
    const nul = letters.indexOf('\0');
    if (nul >= 0)
      throw new BadFile(
        'there is a NUL character; expected letters',
        this.lineAt(lineCount(letters.slice(0, nul)) + 1),
      );
    const { separator, quote } = this.form;
    const { data, errors } = Papa.parse<string[]>(letters, {
      delimiter: separator,
      newline: '\n',
      quoteChar: quote === '' ? NO_QUOTE : quote,
    });
    const wrong = errors.find(({ type }) => type === 'Quotes');
    if (wrong)
      throw new BadFile(
        QUOTE_WORDS[wrong.code] ?? QUOTE_WORDS.InvalidQuotes!,
        this.lineAt(lineOfRow(data, wrong.row ?? 0)),
      );
    this.linesBefore += lineCount(letters);
    if (letters.endsWith('\n')) data.pop();
    return data;
  }

  private lineAt(line: number): string {
    return `line ${this.linesBefore + line}`;
  }

  private refuseLong(): never {
    throw new BadFile(
      `a row goes on for more than ${inDigits(LIMITS.line)} characters. A quoted cell may not be closed, or quotes are used as letters: then say that there are none around cells`,
      this.lineAt(1),
    );
  }
}

/** A character that text does not hold: NUL is refused before. */
const NO_QUOTE = '\0';

const QUOTE_WORDS: Readonly<Record<string, string>> = {
  MissingQuotes: 'a quoted cell is never closed; expected a closing "',
  InvalidQuotes:
    'a quote stands in the wrong place; expected quotes around the whole cell and "" for a quote inside it',
};

/** The line, counted from 1, in which a row begins; rows with line ends inside cells take several. */
export function lineOfRow(rows: readonly (readonly string[])[], row: number): number {
  let line = 1;
  for (const cells of rows.slice(0, row)) line += 1 + cells.reduce((sum, cell) => sum + lineCount(cell), 0);
  return line;
}

/** The place after the last line end outside quotes; 0 where there is none. */
function lastLineEnd(text: string, quote: Quote): number {
  if (quote === '') return text.lastIndexOf('\n') + 1;
  let quotes = 0;
  for (let at = text.indexOf(quote); at >= 0; at = text.indexOf(quote, at + 1)) quotes++;
  for (let end = text.length; end > 0;) {
    const lineEnd = text.lastIndexOf('\n', end - 1);
    if (lineEnd < 0) return 0;
    for (let at = text.lastIndexOf(quote, end - 1); at > lineEnd; at = text.lastIndexOf(quote, at - 1)) quotes--;
    if (quotes % 2 === 0) return lineEnd + 1;
    end = lineEnd;
  }
  return 0;
}

function lineCount(text: string): number {
  let count = 0;
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) count++;
  return count;
}
