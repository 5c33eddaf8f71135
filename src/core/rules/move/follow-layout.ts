import type { CellPosition } from '../../sheet/cell-position';
import { itemAt } from '../../values/item-at';
import { putRules, rulesOf } from '../shape/stored-rule';
import { isKept, type CellRef, type Coordinate, type ReferenceNode } from '../../formula/syntax/formula-tree';
import { referenceText } from '../../formula/syntax/print-formula';
import { rewriteReferences } from '../../formula/syntax/rewrite-references';
import {
  cellAddress,
  GONE,
  isWholeColumns,
  isWholeRows,
  parseAddress,
  parseRanges,
  writeArea,
} from '../../sheet/address';
import type { Operation } from '../../sheet/change';
import { layoutMove, moveSpan, type AxisMove, type LayoutMove } from '../../sheet/layout/layout-move';
import type { Sheet } from '../../sheet/sheet';
import { mapRuleReferences } from '../shape/map-rule-references';
import type { Rule } from '../shape/rule';

/**
 * Operations, with those added that let rules and named ranges follow the cells they name by address when rows or
 * fields come, go or move. So that taking the change back restores them, they are part of it. Cost: nothing unless
 * something moves and is named by address.
 */
export function withFollowers(sheet: Sheet, operations: readonly Operation[]): readonly Operation[] {
  const rules = rulesOf(sheet).filter(({ rule }) => namesAddresses(rule));
  const names = sheet.partsOf('name');
  if (rules.length + names.length === 0) return operations;
  const move = layoutMove(sheet, operations);
  if (!move) return operations;
  const own = new Set(
    operations.flatMap((operation) => (operation.kind === 'put-rules' ? operation.rules.map(({ id }) => id) : [])),
  );
  const followed = rules.flatMap((stored) => {
    const rule = own.has(stored.id) ? stored.rule : followLayout(stored.rule, sheet, move);
    return JSON.stringify(rule) === JSON.stringify(stored.rule) ? [] : { ...stored, rule };
  });
  const renamed = names.flatMap((part) => {
    const refersTo = moveName(part.refersTo, move);
    return refersTo === part.refersTo ? [] : { ...part, refersTo };
  });
  return [
    ...operations,
    ...(followed.length ? [putRules(followed)] : []),
    ...(renamed.length ? [{ kind: 'put-parts' as const, parts: renamed }] : []),
  ];
}

/** Whether a rule names any cell by its address. */
function namesAddresses(rule: Rule): boolean {
  let names = false;
  const seen = (text: string): string => {
    names = true;
    return text;
  };
  mapRuleReferences(rule, { cells: seen, formula: seen });
  return names;
}

/**
 * The rule as it reads after rows and fields have moved: every address names the cell it named before, `#REF!` where
 * that is gone.
 */
function followLayout(rule: Rule, sheet: Sheet, move: LayoutMove): Rule {
  const cells = (ranges: string): string => moveRanges(ranges, move);
  const before = writtenFor(rule, sheet);
  const anchor = {
    column: move.column.to(before.column) ?? before.column,
    position: move.row.to(before.position) ?? before.position,
  };
  const followed = mapRuleReferences(rule, {
    cells,
    formula: (text) => moveFormula(text, before, { ...move, anchor }),
  });
  // The first cell read may be another one now: the anchor of the formula is set explicitly.
  return followed.when.kind === 'formula' &&
    followed.when.at === undefined &&
    'fields' in rule.reads &&
    followed.when.formula !== undefined
    ? { ...followed, when: { ...followed.when, at: cellAddress(anchor.column, anchor.position) } }
    : followed;
}

/** The cell that the formulas of a rule are written for. */
export function writtenFor({ reads, when }: Rule, sheet: Sheet): CellPosition {
  const at = when.kind === 'formula' && when.at !== undefined ? parseAddress(when.at) : undefined;
  if (at) return at;
  if ('cells' in reads) {
    const ranges = parseRanges(reads.cells);
    if (!ranges) return { column: 0, position: 0 };
    return { column: Math.min(...ranges.map(({ left }) => left)), position: Math.min(...ranges.map(({ top }) => top)) };
  }
  const columns = reads.fields.flatMap((field) => sheet.findColumn(field) ?? []);
  const slots = sheet.slotsWithRoles(reads.roles ?? ['record']);
  return {
    column: Math.min(...columns, sheet.fields.length - 1),
    position: Math.max(
      0,
      sheet.order.findIndex((slot) => slots.has(slot)),
    ),
  };
}

function moveRanges(ranges: string, move: LayoutMove): string {
  const left = (parseRanges(ranges) ?? []).flatMap((range) => {
    const columns = isWholeRows(range)
      ? ([range.left, range.right] as const)
      : moveSpan([range.left, range.right], move.column);
    const rows = isWholeColumns(range)
      ? ([range.top, range.bottom] as const)
      : moveSpan([range.top, range.bottom], move.row);
    return columns && rows ? writeArea({ left: columns[0], right: columns[1], top: rows[0], bottom: rows[1] }) : [];
  });
  return left.join(' ') || GONE;
}

/**
 * Relative references keep their distance from the cell that the formula is written for; absolute ones go with what
 * they name.
 */
function moveFormula(text: string, before: CellPosition, move: LayoutMove & { readonly anchor: CellPosition }): string {
  const columnShift = move.anchor.column - before.column;
  const rowShift = move.anchor.position - before.position;
  return rewriteReferences(text, (node) => {
    const [one, other = one] = node.ends;
    if (node.sheet !== null || !one || !other || isKept(one) || isKept(other)) return referenceText(node);
    const columns = moveEnds([one.column, other.column], move.column, columnShift);
    const rows = moveEnds([one.row, other.row], move.row, rowShift);
    return columns && rows ? referenceText({ ...node, ends: endsOf(node, columns, rows) }) : GONE;
  });
}

/** A name stands for cells, wherever it is used: its references name them, with `$` or without. */
function moveName(refersTo: string, move: LayoutMove): string {
  return rewriteReferences(refersTo, (node) => {
    const [one, other = one] = node.ends;
    if (node.sheet !== null || !one || !other || isKept(one) || isKept(other)) return referenceText(node);
    const columns = moveNamed([one.column, other.column], move.column);
    const rows = moveNamed([one.row, other.row], move.row);
    return columns && rows ? referenceText({ ...node, ends: endsOf(node, columns, rows) }) : GONE;
  });
}

function moveNamed([one, other]: Ends, move: AxisMove): Ends | undefined {
  if (!one || !other) return [one, other];
  const span = moveSpan([Math.min(one.at, other.at), Math.max(one.at, other.at)], move);
  return (
    span && [
      { ...one, at: span[0] },
      { ...other, at: span[1] },
    ]
  );
}

type Ends = readonly [Coordinate | null, Coordinate | null];

function moveEnds([one, other]: Ends, move: AxisMove, shift: number): Ends | undefined {
  if (one?.absolute && other?.absolute) {
    const span = moveSpan([Math.min(one.at, other.at), Math.max(one.at, other.at)], move);
    return (
      span && [
        { at: span[0], absolute: true },
        { at: span[1], absolute: true },
      ]
    );
  }
  const ends = [one, other].map((end) => {
    if (!end) return null;
    const at = end.absolute ? move.to(end.at) : end.at + shift;
    return at === undefined || at < 0 ? undefined : { ...end, at };
  });
  return ends.includes(undefined) ? undefined : (ends as unknown as Ends);
}

function endsOf({ ends }: ReferenceNode, columns: Ends, rows: Ends): CellRef[] {
  return ends.map((_, at) => ({ column: itemAt(columns, at), row: itemAt(rows, at) }));
}
