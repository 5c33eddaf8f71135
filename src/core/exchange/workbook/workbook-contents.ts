import { generateNKeysBetween } from 'fractional-indexing';
import { labelFromInput } from '../../sheet/label-from-input';
import { itemAt } from '../../values/item-at';
import { keepReferences } from '../../formula/resolve/keep-references';
import { isFormulaInput } from '../../values/is-formula-input';
import type { Style } from '../../looks/style';
import type { Rule } from '../../rules/shape/rule';
import type { Reads } from '../../rules/terms';
import { storedInOrder } from '../../rules/shape/stored-in-order';
import { ruleSentence, type NamedField } from '../../rules/shape/sentence-words';
import { cellAddress, isWholeRows, parseAddress, parseRanges, type CellRange } from '../../sheet/address';
import type { StoredRow } from '../../sheet/change';
import { newField, type Field } from '../../sheet/field';
import type { Layout } from '../../sheet/layout/layout-move';
import type { RowRole } from '../../sheet/row-role';
import { Sheet } from '../../sheet/sheet';
import { nameKey, type SheetPart } from '../../sheet/sheet-part';
import { plainDateFormat } from '../../values/dates/date-serial';
import { readInput } from '../../values/read-input';
import { findHeader } from '../import/table-reading';
import { fieldIdAt, rowIdAt } from '../import/table-rows';
import type { SheetContents } from '../sheet-contents';
import type { WorkbookRow, WorkbookRule, WorkbookSheet } from './workbook-sheet';

/** Rows at the top that are searched for labels. */
const TOP_ROWS = 20;

/** The texts of the first rows, as they would be typed. */
export const topRows = (sheet: WorkbookSheet, count = TOP_ROWS): string[][] =>
  Array.from({ length: Math.min(count, sheet.rowCount) }, (_, position) =>
    Array.from({ length: sheet.width }, (__, column) => sheet.rows.get(position)?.cells.get(column)?.input ?? ''),
  );

/** The row of a workbook's sheet that holds the labels; null where none does. */
export const headerOf = (sheet: WorkbookSheet): number | null => findHeader(topRows(sheet), sheet.width);

/**
 * A sheet of a workbook as one of ours: the row of labels is the header, those above are titles, all others records.
 * Number formats that a whole column shares become its field's. A rule over all records of some columns reads these
 * fields, and with them the records still to come.
 */
export function workbookContents(
  sheet: WorkbookSheet,
  { name, header }: { readonly name: string; readonly header: number | null },
): SheetContents {
  const records = { top: header === null ? 0 : header + 1, bottom: sheet.rowCount - 1 };
  const fields = fieldsOf(sheet, records);
  const roleAt = (position: number): RowRole =>
    header === null || position > header ? 'record' : position === header ? 'header' : 'title';
  const kept = keeper(sheet, fields, header);
  const keys = generateNKeysBetween(null, null, sheet.rowCount);
  const rows = keys.map((key, position): StoredRow => {
    const role = roleAt(position);
    const row = sheet.rows.get(position);
    const id = rowIdAt(position);
    const cells: Record<string, string> = {};
    const styles: Record<string, Style> = {};
    for (const [column, { input, style }] of row?.cells ?? []) {
      if (column >= sheet.width) continue;
      const own = style && ownStyle(style, itemAt(fields, column), input);
      if (own) styles[fieldIdAt(column)] = own;
      if (input !== '') cells[fieldIdAt(column)] = isFormulaInput(input) ? kept(input, id) : input;
    }
    const about = aboutOf(row, styles);
    return { id, key, role, cells, ...(about ? { about } : {}) };
  });
  const names = ruleNames(sheet, header, fields);
  const rules = storedInOrder(
    sheet.rules.map((rule, at) => placedRule(rule, { id: `rule-${at + 1}`, name: itemAt(names, at), records })),
  );
  return { name, fields, rows, rules, parts: partsOf(sheet) };
}

/** The names of the rules of a workbook's sheet, with its labels in one of its rows. */
export function ruleNames(
  sheet: WorkbookSheet,
  header: number | null,
  fields = fieldsOf(sheet, { top: (header ?? -1) + 1, bottom: 0 }),
): string[] {
  const labels = header === null ? [] : itemAt(topRows(sheet, header + 1), header);
  const named = fields.map((field, column) => ({
    ...field,
    label: labelFromInput(labels[column], column),
  }));
  return sheet.rules.map((rule) => called(rule, named));
}

/** A rule without a name in the file is named by its sentence, a formula by itself. */
function called({ name, reads, when }: WorkbookRule, fields: readonly NamedField[]): string {
  if (name !== null) return name;
  if (when.kind === 'formula') return when.formula.slice(0, 80);
  return ruleSentence(fields, { reads: 'cells' in reads ? readsFields(parseRanges(reads.cells)!) : reads, when });
}

interface RowSpan {
  readonly top: number;
  readonly bottom: number;
}

function fieldsOf(sheet: WorkbookSheet, records: RowSpan): Field[] {
  const keys = generateNKeysBetween(null, null, sheet.width);
  const formats = keys.map(() => new Set<string | null>());
  for (const [position, { cells }] of sheet.rows) {
    if (position < records.top) continue;
    for (const [column, { input, style }] of cells) if (input !== '') formats[column]?.add(style?.number ?? null);
  }
  return keys.map((key, column) => {
    const about = sheet.columns.get(column);
    const [format = null] =
      itemAt(formats, column).size === 1 ? itemAt(formats, column) : [about?.style?.number ?? null];
    return newField(fieldIdAt(column), key, {
      widthPx: about?.widthPx ?? 100,
      format,
      ...(about?.hidden ? { hidden: true } : {}),
    });
  });
}

/** The formatting of a cell that is neither its field's nor given by its input; undefined where there is none. */
function ownStyle(style: Style, field: Field, input: string): Style | undefined {
  const { number, ...rest } = style;
  const isSaid = number === field.format || (field.format === null && number === formatTyped(input));
  const own = number === undefined || isSaid ? rest : style;
  return Object.keys(own).length ? own : undefined;
}

/** The number format in which an input is shown by itself. */
function formatTyped(input: string): string | null {
  const { value, format } = readInput(input);
  return value.kind === 'date' ? plainDateFormat(value.serial) : format;
}

function aboutOf(row: WorkbookRow | undefined, styles: Readonly<Record<string, Style>>): StoredRow['about'] {
  const about = {
    ...(Object.keys(styles).length ? { styles } : {}),
    ...(row?.heightPx === undefined ? {} : { heightPx: row.heightPx }),
    ...(row?.level === undefined ? {} : { level: row.level }),
  };
  return Object.keys(about).length ? about : undefined;
}

/** Replaces addresses in formulas by ids. */
function keeper(
  sheet: WorkbookSheet,
  fields: readonly Field[],
  header: number | null,
): (input: string, row: string) => string {
  const labelled = new Sheet(fields);
  if (header !== null) {
    const labels = [...(sheet.rows.get(header)?.cells ?? [])].flatMap(([column, { input }]) =>
      column < sheet.width ? [[fieldIdAt(column), input]] : [],
    );
    labelled.apply({
      kind: 'insert-rows',
      rows: [{ id: 'labels', key: 'a0', role: 'header', cells: Object.fromEntries(labels) }],
    });
  }
  labelled.parts.put(partsOf(sheet).filter(({ kind }) => kind === 'name'));
  const places: Layout = {
    rows: Array.from({ length: sheet.rowCount }, (_, position) => rowIdAt(position)),
    fields: fields.map(({ id }) => id),
  };
  return (input, row) => keepReferences(input, labelled, { row, places });
}

/** A rule with its reach by fields where it reads all their records. */
function placedRule(
  given: WorkbookRule,
  { id, name, records }: { readonly id: string; readonly name: string; readonly records: RowSpan },
): Rule {
  const rule: Rule = { ...given, id, name: name.slice(0, 200) };
  if (!('cells' in rule.reads)) return rule;
  const ranges = parseRanges(rule.reads.cells)!;
  const { when } = rule;
  const topLeft = cellAddress(Math.min(...ranges.map(({ left }) => left)), Math.min(...ranges.map(({ top }) => top)));
  const plain =
    when.kind === 'formula' && when.at === topLeft
      ? { ...rule, when: { kind: when.kind, formula: when.formula } }
      : rule;
  const isAll =
    records.bottom >= records.top &&
    ranges.every((range) => !isWholeRows(range) && range.top === records.top && range.bottom >= records.bottom);
  return isAll ? { ...plain, reads: readsFields(ranges) } : plain;
}

const readsFields = (ranges: readonly CellRange[]): Reads => ({
  fields: [
    ...new Set(
      ranges.flatMap(({ left, right }) => Array.from({ length: right - left + 1 }, (_, at) => fieldIdAt(left + at))),
    ),
  ],
});

const NAME = /^\p{L}[\p{L}\p{N}._]*$/u;

function partsOf(sheet: WorkbookSheet): SheetPart[] {
  const inside = ({ left, right, top, bottom }: CellRange) =>
    right < sheet.width && bottom < sheet.rowCount && (left !== right || top !== bottom);
  return [
    ...sheet.merges.filter(inside).map(({ left, right, top, bottom }, at): SheetPart => ({
      id: `merge-${at + 1}`,
      kind: 'merge',
      top: rowIdAt(top),
      bottom: rowIdAt(bottom),
      left: fieldIdAt(left),
      right: fieldIdAt(right),
    })),
    ...sheet.names
      .filter(({ name }) => NAME.test(name) && name.length <= 100 && !parseAddress(name))
      .filter(({ name }, at, all) => all.findIndex((other) => nameKey(other.name) === nameKey(name)) === at)
      .map(({ name, refersTo }): SheetPart => ({ id: nameKey(name), kind: 'name', name, refersTo })),
    ...(sheet.frozen.columns > 0 && sheet.frozen.columns <= sheet.width
      ? [{ id: 'freeze', kind: 'freeze', through: fieldIdAt(sheet.frozen.columns - 1) } as const]
      : []),
  ];
}
