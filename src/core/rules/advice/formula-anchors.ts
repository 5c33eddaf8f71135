import { itemAt } from '../../values/item-at';
import { isKept, type CellRef, type ReferenceNode } from '../../formula/syntax/formula-tree';
import { parseFormula } from '../../formula/syntax/parse-formula';
import { cornerText } from '../../formula/syntax/print-formula';
import { referencesOf, rewriteReferences } from '../../formula/syntax/rewrite-references';
import { cellAddress, parseAddress } from '../../sheet/address';
import type { FormulaWhen } from '../kinds/formula';
import type { RunningRule } from '../evaluate/running-rule';
import { replaced, type Adviser, type AdviceContext } from './advice';

interface FormulaRule {
  readonly running: RunningRule;
  readonly at: number;
  readonly when: FormulaWhen;
  /** The cell that it is written for, and the rows that its relative references name. */
  readonly cell: { readonly column: number; readonly position: number };
  readonly ends: readonly CellRef[];
}

function formulaRules({ evaluation: { sheet, activeRules } }: AdviceContext): FormulaRule[] {
  return activeRules.flatMap((one, at) => {
    const { when, on } = one.rule;
    if (!on || when.kind !== 'formula' || one.read.length === 0) return [];
    const position = sheet.order.findIndex((slot) => one.read.some(({ slots }) => slots.has(slot)));
    const cell = (when.at === undefined ? undefined : parseAddress(when.at)) ?? {
      column: itemAt(one.read, 0).column,
      position,
    };
    const ends = referencesOf(parseFormula(when.formula).tree).flatMap(plainEnd);
    return [{ running: one, at, when, cell, ends }];
  });
}

/** The corner of a reference to a single cell. */
function plainEnd({ ends }: ReferenceNode): CellRef[] {
  const [end, other] = ends;
  return end && other === undefined && !isKept(end) ? [end] : [];
}

/**
 * A formula whose references all lie in another row than the cell it is written for: it was written for one row and
 * applied from another.
 */
export const shiftedFormula: Adviser = (context) =>
  formulaRules(context).flatMap(({ running: { rule }, at, when, cell, ends }) => {
    const rows = new Set(ends.flatMap(({ row }) => (row && !row.absolute ? row.at : [])));
    const [row] = rows;
    if (row === undefined || rows.size !== 1 || row === cell.position || Math.abs(row - cell.position) > 2) return [];
    const written = cellAddress(cell.column, cell.position);
    const meant = cellAddress(cell.column, row);
    return [
      {
        rules: [rule.id],
        cells: [written],
        message: `The formula of “${rule.name}” is written for ${written} but reads row ${row + 1}: each row is judged by another one. Was it meant for ${meant}?`,
        repair: [replaced(itemAt(context.stored, at), { when: { ...when, at: meant } })],
      },
    ];
  });

/** A formula over several fields whose references move along from field to field, off the field they were meant for. */
export const unanchored: Adviser = (context) =>
  formulaRules(context).flatMap(({ running: { rule, read }, at, when, ends }) => {
    const columns = read.map(({ column }) => column);
    const loose = ends.filter(({ column }) => column && !column.absolute && !columns.includes(column.at));
    if (columns.length < 2 || loose.length === 0) return [];
    const repaired = rewriteReferences(when.formula, (node) =>
      node.ends
        .map((end) =>
          isKept(end) || !end.column || columns.includes(end.column.at)
            ? isKept(end)
              ? ''
              : cornerText(end)
            : cornerText({ ...end, column: { ...end.column, absolute: true } }),
        )
        .join(':'),
    );
    return [
      {
        rules: [rule.id],
        cells: loose.map((end) => cornerText(end)),
        message: `“${rule.name}” reads ${columns.length} fields, and ${loose.map((end) => cornerText(end)).join(', ')} moves along with them. An anchored reference stays: ${repaired}.`,
        repair: [replaced(itemAt(context.stored, at), { when: { ...when, formula: repaired } })],
      },
    ];
  });
