import type { FieldId, RowId } from '../../sheet/ids';
import { layoutOf, type Layout } from '../../sheet/layout/layout-move';
import type { Sheet } from '../../sheet/sheet';
import { isKept, type CellRef, type KeptRef } from '../syntax/formula-tree';
import { parseFormula } from '../syntax/parse-formula';
import { keptText, quotedName, referenceText } from '../syntax/print-formula';
import { namesOf, resolveNames } from './resolve-names';
import { referencesOf, rewriteReferences } from '../syntax/rewrite-references';
import { isFormulaInput } from '../../values/is-formula-input';

/** The row that a formula is to stand in, and how rows and fields stand then. */
export interface KeptIn {
  readonly row: RowId;
  readonly places: Layout;
}

/**
 * A formula in a row of the sheet as it stands now. Places are listed when a formula asks for them: most entries are
 * none.
 */
export function inRow(sheet: Sheet, slot: number): KeptIn {
  let places: Layout | undefined;
  return {
    row: sheet.rowId(slot),
    get places() {
      return (places ??= layoutOf(sheet));
    },
  };
}

/**
 * A formula in its stored form: references by the ids of fields and rows instead of letters, numbers and labels, so
 * that they follow their cells when these move or are renamed. A cell of the formula's own row is stored as such, so
 * that formulas with the same meaning in each row are the same text. References beyond the sheet stay as typed.
 */
export function keepReferences(input: string, sheet: Sheet, into: KeptIn): string {
  if (!isFormulaInput(input)) return input;
  const { row, places } = into;
  return keepLabels(
    rewriteReferences(input, (node) => {
      if (node.sheet !== null) return referenceText(node);
      return referenceText({
        ...node,
        ends: node.ends.map((end) => (isKept(end) ? end : (keptEnd(end, row, places) ?? end))),
      });
    }),
    sheet,
  );
}

/** Labels become the ids of their fields, marked so that they are shown as labels again. */
function keepLabels(input: string, sheet: Sheet): string {
  const { tree, diagnostics } = parseFormula(input);
  if (diagnostics.length) return input;
  const names = new Set(namesOf(tree).flatMap(({ name, from }) => (sheet.findName(name) ? [] : from)));
  if (names.size === 0) return input;
  const resolved = resolveNames(tree, { sheet, findName: (name) => sheet.findName(name)?.refersTo });
  let kept = '';
  let at = 0;
  for (const node of referencesOf(resolved.tree)) {
    const [end] = node.ends;
    if (!names.has(node.from) || !end || !isKept(end)) continue;
    kept += input.slice(at, node.from) + keptText({ ...end, isLabel: true });
    at = node.to;
  }
  return kept + input.slice(at);
}

/**
 * The same formula as a person reads it: references by letters and numbers as they are now, `#REF!` where one is gone.
 */
export function showReferences(input: string, sheet: Sheet, slot: number): string {
  if (!isFormulaInput(input) || !input.includes('⟦')) return input;
  return rewriteReferences(input, (node) => {
    const [only] = node.ends;
    const label =
      node.ends.length === 1 && only && isKept(only) && only.isLabel && only.field
        ? labelOfField(sheet, only.field.id)
        : undefined;
    if (label !== undefined) return quotedName(label);
    const ends = node.ends.map((end) => (isKept(end) ? plainEnd(end, sheet, slot) : end));
    return ends.every((end) => end !== undefined) ? referenceText({ ...node, ends }) : '#REF!';
  });
}

/**
 * Whether a formula, as it is kept, is the same text in every row of its field: it reads its own row, whole fields, and
 * rows that stay.
 */
export function isSameInEachRow(input: string): boolean {
  if (!isFormulaInput(input)) return false;
  const { tree, diagnostics } = parseFormula(input);
  return (
    diagnostics.length === 0 &&
    referencesOf(tree).every(({ ends }) =>
      ends.every((end) =>
        isKept(end) ? typeof end.row === 'string' || end.row.absolute : (end.row?.absolute ?? true),
      ),
    )
  );
}

function keptEnd({ column, row }: CellRef, own: RowId, places: Layout): KeptRef | undefined {
  const field = column && places.fields[column.at];
  if (field === undefined) return undefined;
  const kept = column && field !== null ? { id: field, absolute: column.absolute } : null;
  if (!row) return { field: kept, row: 'all' };
  const at = places.rows[row.at];
  if (at === undefined) return undefined;
  return { field: kept, row: at === own && !row.absolute && kept ? 'same' : { id: at, absolute: row.absolute } };
}

function plainEnd({ field, row }: KeptRef, sheet: Sheet, slot: number): CellRef | undefined {
  const column = field && sheet.findColumn(field.id);
  const at = row === 'same' ? slot : typeof row === 'object' ? sheet.findSlot(row.id) : null;
  if (column === undefined || at === undefined) return undefined;
  return {
    column: field && column !== null ? { at: column, absolute: field.absolute } : null,
    row: at === null ? null : { at: sheet.positionOf(at), absolute: typeof row === 'object' && row.absolute },
  };
}

/** The label of a field by its id; undefined where it has none, or is not there any more. */
function labelOfField(sheet: Sheet, id: FieldId): string | undefined {
  const column = sheet.findColumn(id);
  return column === undefined ? undefined : sheet.labelOf(column);
}
