import { printFormula } from '../../formula/syntax/print-formula';
import { plainTree } from '../../formula/resolve/plain-tree';
import type { Sheet } from '../../sheet/sheet';
import { shownAt } from '../../sheet/shown-cell';
import { TAG } from '../../values/cell-value';
import type { ExportOptions, ExportedFile } from '../exported-file';
import { wholeArea, type ExportSource } from '../export-source';
import { writeCsv } from './write-csv';

/** Rows that are written at once. */
const BATCH = 1000;

/** Beginnings of formulas and commands in programs that open such files: common practice. */
const RISKY = /^[=+\-@\t\r]/;

const GUARDED = 'Texts that other programs would take for a formula have an apostrophe before them';

/** A sheet as separated values, some thousand rows at a time. Looks and rules have no place in such a file. */
export function csvOfSheet(
  { sheet, area, running }: ExportSource,
  { values = 'shown', separator = ',', decimal = '.', guard = true }: ExportOptions,
): ExportedFile {
  const { left, top, right, bottom } = area ?? wholeArea(sheet);
  const shown = decimal === ',' ? withComma : shownAt;
  const plain = values === 'typed' ? typedAt : shown;
  const read = guard ? guarded(plain, values) : plain;
  function* parts(): Generator<string> {
    for (let from = top; from <= bottom; from += BATCH) {
      const slots = sheet.order.slice(from, Math.min(bottom + 1, from + BATCH));
      const rows = slots.map((slot) =>
        Array.from({ length: right - left + 1 }, (_, at) => read(sheet, left + at, slot)),
      );
      yield writeCsv({ rows, width: right - left + 1 }, separator);
    }
  }
  return {
    parts: parts(),
    report: {
      rules: running.map(({ rule }) => ({ name: rule.name, as: 'nothing', note: '' })),
      notes: ['Formatting, rules and looks are not part of separated values', ...(guard ? [GUARDED] : [])],
    },
  };
}

/** The inputs: formulas with addresses. */
function typedAt(sheet: Sheet, column: number, slot: number): string {
  const store = sheet.column(column);
  const input = store.inputAt(slot);
  if (!store.formulas.has(slot)) return input;
  const tree = plainTree(input, sheet, sheet.positionOf(slot));
  return tree ? printFormula(tree) : shownAt(sheet, column, slot);
}

type ReadAt = (sheet: Sheet, column: number, slot: number) => string;

/** The shown text, with a decimal comma in numbers. */
const withComma: ReadAt = (sheet, column, slot) => {
  const text = shownAt(sheet, column, slot);
  return sheet.column(column).tags[slot] === TAG.number
    ? text.replace(/[.,]/g, (sign) => (sign === '.' ? ',' : '.'))
    : text;
};

/** The same, with a mark of text before text that looks like a formula. What was typed as a formula stays one. */
const guarded =
  (plain: ReadAt, values: 'shown' | 'typed'): ReadAt =>
  (sheet, column, slot) => {
    const text = plain(sheet, column, slot);
    if (!RISKY.test(text)) return text;
    const store = sheet.column(column);
    const isText = store.tags[slot] === TAG.text && !(values === 'typed' && store.formulas.has(slot));
    return isText ? `'${text}` : text;
  };
