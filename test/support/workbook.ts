import type { Loss } from '../../src/core/exchange/workbook/losses';
import { EXPORT_FORMATS } from '../../src/core/exchange/export-formats';
import { exportSource, type ExportReport } from '../../src/core/exchange/export-source';
import type { SheetContents } from '../../src/core/exchange/sheet-contents';
import { readWorkbook } from '../../src/core/exchange/workbook/read-workbook';
import { headerOf, workbookContents } from '../../src/core/exchange/workbook/workbook-contents';
import { looksById, sheetLooks } from '../../src/core/sheet/sheet-looks';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { Sheet } from '../../src/core/sheet/sheet';

export const SAVED = looksById(sheetLooks([], 'light'));

/** A sheet with evaluated rules. */
export function evaluated({ fields, rows, rules, parts = [] }: Omit<SheetContents, 'name'>, now = 46_089): Evaluation {
  const made = new Sheet(fields);
  made.apply({ kind: 'insert-rows', rows });
  made.parts.put(parts);
  made.rules.put(rules);
  const evaluation = new Evaluation(made, SAVED, { now });
  evaluation.calculation.calculateAll();
  evaluation.setRules(rules.map(({ rule }) => rule));
  return evaluation;
}

/** The bytes of a workbook of a sheet, and its report. */
export function workbookOf(
  evaluation: Evaluation,
  format: 'ooxml' | 'odf',
  name = 'Readings',
): { readonly bytes: Uint8Array; readonly report: ExportReport } {
  const { parts, report } = EXPORT_FORMATS[format].write(exportSource(evaluation, { name, looks: SAVED }));
  return { bytes: [...parts][0] as Uint8Array, report };
}

/** The first sheet of a workbook as one of ours. */
export function contentsOf(bytes: Uint8Array): SheetContents & { readonly losses: readonly Loss[] } {
  const sheet = readWorkbook(bytes).sheets[0]!.read();
  return { ...workbookContents(sheet, { name: 'Readings', header: headerOf(sheet) }), losses: sheet.losses };
}
