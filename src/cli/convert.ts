import { writeFileSync } from 'node:fs';
import { writeCsv } from '../core/exchange/csv/write-csv';
import { EXPORT_FORMATS, type ExportFormatName } from '../core/exchange/export-formats';
import { exportSource, type ExportReport } from '../core/exchange/export-source';
import { writeJson } from '../core/exchange/json/write-json';
import type { Table } from '../core/exchange/table';
import { looksById, sheetLooks } from '../core/looks/sheet-looks';
import { Evaluation } from '../core/rules/evaluation';
import { mapRuleReferences } from '../core/rules/map-rule-references';
import { fieldByLabel } from '../core/rules/read-rule-set';
import { columnLetters } from '../core/sheet/address';
import { serialInZone } from '../core/values/serial-in-zone';
import { BadInput } from './bad-input';
import { readRules } from './read-rules';
import { readSheetFile, readTable, separatorOf, type FileOptions } from './read-sheet-file';

/** Endings of files that carry more than texts. */
const RICH: Readonly<Record<string, ExportFormatName>> = { xlsx: 'ooxml', ods: 'odf', html: 'html' };

/**
 * `convert IN OUT`: writes the same cells in the format that the ending of OUT names. Workbooks carry rules: those of a workbook, or of a rule file given
 * with `--rules`. What OUT does not say as IN does is told, a line each.
 */
export function convert(
  [from, to]: readonly string[],
  { rules, ...options }: FileOptions & { readonly rules?: string },
): { readonly text: string; readonly told: readonly string[] } {
  const rich = RICH[/\.([a-z]+)$/i.exec(to!)?.[1]?.toLowerCase() ?? ''];
  if (rich) {
    const { bytes, told } = richFile(from!, rich, { ...options, ...(rules === undefined ? {} : { rules }) });
    write(to!, bytes);
    return { text: '', told };
  }
  const table = readTable(from!, options);
  const written = /\.json$/i.test(to!) ? writeJson(options.header ? table : withLabels(table)) : writeCsv(table, separatorOf(to!));
  if (typeof written === 'object') throw new BadInput(to!, written.message);
  if (to === '-') return { text: written.trimEnd(), told: [] };
  write(to!, written);
  return { text: '', told: [] };
}

function richFile(from: string, format: ExportFormatName, { rules, ...options }: FileOptions & { readonly rules?: string }) {
  const file = readSheetFile(from, options);
  const given = rules === undefined ? undefined : readRules(rules);
  const saved = { ...looksById(sheetLooks([], 'light')), ...file.looks, ...given?.looks };
  const evaluation = new Evaluation(file.sheet, saved, { now: serialInZone(options.nowMs, options.zone) });
  const find = fieldByLabel(file.sheet);
  evaluation.setRules(given ? given.rules.map((rule) => mapRuleReferences(rule, { field: find })) : file.rules);
  const name = from === '-' ? 'Sheet' : from.replace(/^.*[\\/]/, '').replace(/\.[^.]+$/, '');
  const { parts, report } = EXPORT_FORMATS[format].write(exportSource(evaluation, { name, looks: saved }), {});
  return { bytes: Buffer.concat([...parts].map((part) => Buffer.from(part))), told: [...file.losses, ...reportLines(report)] };
}

const FATES = {
  rule: 'is there as a rule',
  formula: 'is there by formulas',
  formatting: 'is there as plain formatting',
  nothing: 'is not there',
} as const;

const reportLines = ({ rules, notes }: ExportReport): string[] => [
  ...notes,
  ...rules.filter(({ as, note }) => as !== 'rule' || note !== '').map(({ name, as, note }) => `"${name}" ${FATES[as]}${note ? `: ${note}` : ''}`),
];

const withLabels = ({ rows, width }: Table): Table => ({
  rows: [Array.from({ length: width }, (_, column) => columnLetters(column)), ...rows],
  width,
});

function write(path: string, content: string | Uint8Array): void {
  try {
    writeFileSync(path, content);
  } catch (error) {
    throw new BadInput(path, `it cannot be written (${(error as NodeJS.ErrnoException).code})`, { cause: error });
  }
}
