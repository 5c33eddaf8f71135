import { RE2JS } from 're2js';
import { keepReferences, showReferences } from '../formula/resolve/keep-references';
import { holdsCell, type CellRange } from '../sheet/address';
import type { CellInput } from '../sheet/change';
import { layoutOf } from '../sheet/layout/layout-move';
import { shownAt } from '../sheet/shown-cell';
import type { RuleId } from '../sheet/ids';
import type { Sheet } from '../sheet/sheet';
import { foldText } from '../values/fold-text';
import { EditRefusal, type Editor } from './editor';

/** A search. */
export interface FindQuery {
  readonly text: string;
  /** Upper and lower case, and accents, count; they do not otherwise. */
  readonly exact: boolean;
  /** The text is a pattern (RE2). */
  readonly pattern: boolean;
  /** Only these cells; all where absent. */
  readonly area?: CellRange;
  /** Only cells that this rule paints; without a text, all of them. */
  readonly painted?: RuleId;
}

type Test = (text: string) => boolean;

function patternOf({ text, exact, pattern }: FindQuery): RE2JS {
  try {
    return RE2JS.compile(pattern ? text : RE2JS.quote(text), exact ? 0 : RE2JS.CASE_INSENSITIVE);
  } catch {
    throw new EditRefusal(`“${text}” cannot be read as a pattern.`);
  }
}

function testOf(wanted: FindQuery): Test {
  if (wanted.pattern || wanted.exact) {
    const compiled = patternOf(wanted);
    return (text) => compiled.matcher(text).find();
  }
  const folded = foldText(wanted.text);
  return (text) => foldText(text).includes(folded);
}

const inside = (area: CellRange | undefined, column: number, position: number): boolean =>
  !area || holdsCell(area, column, position);

/** All cells whose shown text or input matches, row by row; with `isPainted`, only those for which that is true. */
export function findCells(
  sheet: Sheet,
  wanted: FindQuery,
  isPainted?: (column: number, slot: number) => boolean,
): { column: number; position: number }[] {
  if (wanted.text === '' && !isPainted) return [];
  const holds = testOf(wanted);
  const found: { column: number; position: number }[] = [];
  sheet.order.forEach((slot, position) =>
    sheet.fields.forEach((_, column) => {
      if (!inside(wanted.area, column, position) || isPainted?.(column, slot) === false) return;
      const input = sheet.column(column).inputAt(slot);
      if (wanted.text === '') found.push({ column, position });
      else if (input === '') return;
      else if (holds(shownAt(sheet, column, slot)) || holds(showReferences(input, sheet, slot)))
        found.push({ column, position });
    }),
  );
  return found;
}

function replacedIn(text: string, compiled: RE2JS, by: string): string {
  try {
    return compiled.matcher(text).replaceAll(by, true);
  } catch {
    throw new EditRefusal(`“${by}” refers to a group that the pattern does not have.`);
  }
}

/** Replaces each match in what was typed. Formulas are searched as they read. */
export const replaceText: Editor<FindQuery & { readonly by: string }> = {
  operations(sheet, { by, ...wanted }) {
    if (wanted.text === '') return [];
    const compiled = patternOf(wanted);
    const places = layoutOf(sheet);
    const cells: CellInput[] = [];
    sheet.order.forEach((slot, position) =>
      sheet.fields.forEach(({ id }, column) => {
        const input = sheet.column(column).inputAt(slot);
        if (input === '' || !inside(wanted.area, column, position)) return;
        const shown = showReferences(input, sheet, slot);
        const replaced = replacedIn(shown, compiled, wanted.pattern ? by : by.replace(/[\\$]/g, String.raw`\$&`));
        if (replaced !== shown)
          cells.push({
            row: sheet.rowId(slot),
            field: id,
            input: keepReferences(replaced, sheet, { row: sheet.rowId(slot), places }),
          });
      }),
    );
    return cells.length ? [{ kind: 'set-cells', cells }] : [];
  },
  says: ({ text, by }) => `replace “${text}” by “${by}”`,
};
