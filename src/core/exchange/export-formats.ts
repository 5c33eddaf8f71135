import { writeRuleFile } from './rules/write-rule-file';
import { csvOfSheet } from './csv/csv-of-sheet';
import type { ExportSource } from './export-source';
import type { ExportedFile, ExportOptions } from './exported-file';
import { writeHtml } from './html/write-html';
import { recordsOfSheet } from './json/records-of-sheet';
import { ODF_TYPE } from './odf/namespaces';
import { writeOdf } from './odf/write-odf';
import { writeOoxml } from './ooxml/write-ooxml';

export interface ExportFormat {
  readonly words: string;
  readonly ending: string;
  readonly type: string;
  readonly write: (source: ExportSource, options: ExportOptions) => ExportedFile;
}

/** The formats that a sheet can be written in, besides its archive, which the server makes with its history. */
export const EXPORT_FORMATS = {
  csv: { words: 'CSV (RFC 4180)', ending: 'csv', type: 'text/csv; charset=utf-8', write: csvOfSheet },
  json: {
    words: 'JSON records, with looks and rule names',
    ending: 'json',
    type: 'application/json',
    write: recordsOfSheet,
  },
  ooxml: {
    words: 'Workbook .xlsx (ISO/IEC 29500)',
    ending: 'xlsx',
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    write: writeOoxml,
  },
  odf: { words: 'Workbook .ods (ISO/IEC 26300)', ending: 'ods', type: ODF_TYPE, write: writeOdf },
  html: {
    words: 'Web page with its legend (HTML)',
    ending: 'html',
    type: 'text/html; charset=utf-8',
    write: writeHtml,
  },
  rules: { words: 'Rules only', ending: 'rules.json', type: 'application/json', write: writeRuleFile },
} as const satisfies Record<string, ExportFormat>;

export type ExportFormatName = keyof typeof EXPORT_FORMATS;

/** A name for the file of a sheet. */
export const fileNameOf = (sheet: string, ending: string): string =>
  `${
    sheet
      .replace(/[\\/:*?"<>|\p{Cc}]/gu, ' ')
      .replace(/\s+/g, ' ')
      .trim() || 'Sheet'
  }.${ending}`;
