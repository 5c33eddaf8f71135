import { itemAt } from '../../values/item-at';
import { isKept, type ReferenceNode } from '../../formula/syntax/formula-tree';
import { Area } from '../../formula/values/formula-value';
import { makeFormula, type Formula } from '../../formula/run/make-formula';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { newCursor, type EvalCursor } from '../../formula/values/place';
import type { CompileContext } from './compile-context';
import type { Inputs } from '../terms';

/** A formula written for one cell and judged for all that a rule reads. */
export interface RuleFormula {
  readonly formula: Formula;
  /** The place of a cell; the same object each time. */
  placeOf(column: number, slot: number): EvalCursor;
  readonly inputs: Inputs;
}

/** Where a formula in a rule was written: the cell that is named, else the top-left cell read. */
export function makeRuleFormula(
  text: string,
  context: CompileContext,
  at?: { column: number; position: number },
): RuleFormula {
  const { formulas, shapes } = context;
  const writtenAt = at ?? topLeft(context);
  const formula = makeFormula(text, { context: formulas, shapes, writtenAt });
  const place = newCursor(formulas);
  place.refs = formula.bound;
  return {
    formula,
    inputs: inputsOf(formula, context, writtenAt),
    placeOf(column, slot) {
      place.column = column;
      place.slot = slot;
      place.position = -1;
      place.work = 0;
      return place;
    },
  };
}

/** The top-left cell of those read: the first row that holds one, the first column. */
export function topLeft({ cells, sheet }: Pick<CompileContext, 'cells' | 'sheet'>): {
  column: number;
  position: number;
} {
  const column = cells[0]?.column ?? 0;
  const position = sheet.order.findIndex((slot) => cells.some(({ slots }) => slots.has(slot)));
  return { column, position: Math.max(0, position) };
}

/** The dependencies of the formula: cells of its own row, single cells, and whole columns for everything else. */
function inputsOf(
  { references, bound, compiled }: Formula,
  context: CompileContext,
  writtenAt: { column: number; position: number },
): Inputs {
  const { sheet, cells } = context;
  const sameRow = new Set<number>();
  const wholeColumns = new Set<number>();
  const single: { column: number; slot: number }[] = [];
  const everyColumn = sheet.fields.map((_, column) => column);
  const isTimeDependent = compiled.volatile.has('clock');
  if (compiled.volatile.has('cells')) return { sameRow: [], wholeColumns: everyColumn, cells: [], isTimeDependent };
  references.forEach((node, at) => {
    for (const column of columnsOf({ columns: cells.map((read) => read.column), at, bound, context })) {
      if (isInOwnRow(node, writtenAt.position)) sameRow.add(column);
      else if (isFixedCell(node)) single.push(...slotOf(node, column, context));
      else wholeColumns.add(column);
    }
  });
  return { sameRow: [...sameRow], wholeColumns: [...wholeColumns], cells: single, isTimeDependent };
}

interface ColumnsAsked {
  readonly columns: readonly number[];
  readonly at: number;
  readonly bound: Formula['bound'];
  readonly context: CompileContext;
}

/** Columns that a reference covers, judged from each column that is read. */
function columnsOf({ columns, at, bound, context }: ColumnsAsked): Set<number> {
  const found = new Set<number>();
  const place = newCursor(context.formulas);
  for (const column of columns) {
    place.column = column;
    place.slot = context.sheet.order[0] ?? -1;
    place.position = 1_000_000;
    const area = itemAt(bound, at).areaAt(place);
    if (!(area instanceof Area) || area.sheet !== context.sheet) continue;
    for (let covered = area.left; covered <= Math.min(area.right, context.sheet.fields.length - 1); covered++)
      found.add(covered);
  }
  return found;
}

function isInOwnRow({ ends }: ReferenceNode, position: number): boolean {
  return ends.every((end) =>
    isKept(end) ? end.row === 'same' : end.row !== null && !end.row.absolute && end.row.at === position,
  );
}

function isFixedCell({ ends }: ReferenceNode): boolean {
  const [end, other] = ends;
  return end !== undefined && other === undefined && !isKept(end) && end.row?.absolute === true;
}

function slotOf(
  { ends }: ReferenceNode,
  column: number,
  { sheet }: CompileContext,
): { column: number; slot: number }[] {
  const [end] = ends;
  const slot = end && !isKept(end) && end.row ? sheet.order[end.row.at] : undefined;
  return slot === undefined ? [] : [{ column, slot }];
}

/** The mistake of a formula in a rule file that cannot be parsed. */
export const formulaMistake = (text: string): string | undefined => parseFormula(text).diagnostics[0]?.message;
