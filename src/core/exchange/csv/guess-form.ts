import Papa from 'papaparse';
import { SEPARATORS, type CsvForm, type Separator } from './csv-rows';

/** How the values of a text are separated, and why one thinks so. */
export interface GuessedForm extends CsvForm {
  readonly why: string;
}

/** Rows at the beginning that decide. */
const ROWS = 50;

/**
 * The separator by which the first rows of a text fall into the same number of cells, and more than one, most often.
 */
export function guessForm(head: string, isWhole: boolean): GuessedForm {
  const found = SEPARATORS.map((separator) => ({ separator, ...evenness(head, separator, isWhole) }));
  const best = found.reduce((before, each) => (each.score > before.score ? each : before));
  if (best.score === 0) return { separator: ',', quote: '"', why: 'no separator was found: one field' };
  const { separator, rows, alike, width } = best;
  const of = alike === rows ? `all of the first ${rows}` : `${alike} of the first ${rows}`;
  return { separator, quote: '"', why: `${of} rows have ${width} cells` };
}

function evenness(
  head: string,
  separator: Separator,
  isWhole: boolean,
): { readonly score: number; readonly rows: number; readonly alike: number; readonly width: number } {
  const { data } = Papa.parse<string[]>(head, { delimiter: separator, preview: ROWS + 1 });
  // The last row may be cut off.
  const rows = (isWhole || data.length > ROWS ? data : data.slice(0, -1))
    .slice(0, ROWS)
    .filter((cells) => cells.length > 1 || cells[0] !== '');
  const byWidth = new Map<number, number>();
  for (const { length } of rows) byWidth.set(length, (byWidth.get(length) ?? 0) + 1);
  const [width, alike] = [...byWidth].reduce(
    (best, each) => (each[1] > best[1] || (each[1] === best[1] && each[0] > best[0]) ? each : best),
    [1, 0],
  );
  return { score: width < 2 ? 0 : (alike / rows.length) * (1 + Math.log(width)), rows: rows.length, alike, width };
}
