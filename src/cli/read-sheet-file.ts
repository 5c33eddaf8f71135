import { rulesOf } from '../core/rules/shape/stored-rule';
import { showReferences } from '../core/formula/resolve/keep-references';
import type { Table } from '../core/values/table';
import type { Look } from '../core/looks/look';
import { savedLooks } from '../core/sheet/sheet-looks';
import type { Rule } from '../core/rules/shape/rule';
import { Sheet } from '../core/sheet/sheet';
import { sheetFromTable } from '../core/sheet/sheet-from-table';
import { readBytes } from './read-bytes';
import { isRich, readContents, type FileOptions } from './read-contents';
import { tableOf } from './read-table';

/** A data file as a sheet; a workbook or an archive brings rules of its own. */
export interface SheetFile {
  readonly sheet: Sheet;
  readonly rules: readonly Rule[];
  readonly looks: Readonly<Record<string, Look>>;
  /** The parts of the file that the sheet does not hold, in words. */
  readonly losses: readonly string[];
}

/**
 * Reads CSV, TSV, JSON, JSON Lines, a workbook or an archive. Throws a BadInput that names the file and the place in
 * it.
 */
export function readSheetFile(path: string, options: FileOptions): SheetFile {
  const bytes = readBytes(path);
  if (!isRich(path, bytes))
    return { sheet: sheetFromTable(tableOf(path, bytes, options), options), rules: [], looks: {}, losses: [] };
  const { contents, losses } = readContents(path, options);
  const { fields, rows, rules, parts = [], settings } = contents;
  const made = new Sheet(fields, { ...settings, ...options });
  if (rows.length) made.apply({ kind: 'insert-rows', rows });
  made.parts.put(parts);
  made.rules.put(rules);
  return {
    sheet: made,
    rules: rulesOf(made).map(({ rule }) => rule),
    looks: savedLooks(parts, 'light'),
    losses,
  };
}

/** A data file as rows of texts, and what they leave out, in words. */
interface TableFile extends Table {
  readonly losses: readonly string[];
}

/** The same as rows of texts, as they would be typed; formulas of a workbook with letters and numbers. */
export function readTable(path: string, options: FileOptions): TableFile {
  const bytes = readBytes(path);
  if (!isRich(path, bytes)) return { ...tableOf(path, bytes, options), losses: [] };
  const { sheet, rules, losses } = readSheetFile(path, options);
  const rows = sheet.order.map((slot) =>
    sheet.columns.map((store) => showReferences(store.inputAt(slot), sheet, slot)),
  );
  const unsaid = rules.length
    ? `Formatting and ${rules.length} ${rules.length === 1 ? 'rule' : 'rules'} are left out`
    : 'Formatting is left out';
  return { rows, width: sheet.fields.length, losses: [...losses, unsaid] };
}
