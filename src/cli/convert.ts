import { writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { nanoid } from 'nanoid';
import { codeOf } from '../core/values/error-message';
import { counted } from '../core/values/counted';
import { putRules, rulesOf } from '../core/rules/shape/stored-rule';
import { endLine, headLine, rowLine } from '../core/exchange/archive/archive-lines';
import { writeCsv } from '../core/exchange/csv/write-csv';
import { EXPORT_FORMATS, type ExportFormatName } from '../core/exchange/export-formats';
import { exportSource, FATE_WORDS, fateGroups, type ExportReport } from '../core/exchange/export-source';
import { writeJson } from '../core/exchange/json/write-json';
import { rulesForSheet } from '../core/exchange/rules/rules-for-sheet';
import type { SheetContents } from '../core/exchange/sheet-contents';
import type { Table } from '../core/values/table';
import { savedLooks } from '../core/sheet/sheet-looks';
import { Evaluation } from '../core/rules/evaluate/evaluation';
import { mapRuleReferences } from '../core/rules/shape/map-rule-references';
import { fieldByLabel, type RuleSet } from '../core/rules/shape/read-rule-set';
import { storedInOrder } from '../core/rules/shape/stored-in-order';
import { columnLetters } from '../core/sheet/address';
import { Sheet } from '../core/sheet/sheet';
import { serialInZone } from '../core/values/dates/serial-in-zone';
import { BadInput } from './bad-input';
import { nameOf, telling } from './read-bytes';
import { readContents, type FileOptions } from './read-contents';
import { readRules } from './read-rules';
import { readSheetFile, readTable } from './read-sheet-file';
import { separatorOf } from './read-table';

/** Endings of files that carry more than texts. */
const RICH: readonly (readonly [ending: RegExp, format: ExportFormatName])[] = [
  [/\.xlsx$/i, 'ooxml'],
  [/\.ods$/i, 'odf'],
  [/\.html?$/i, 'html'],
  [/(^|[^a-z])rules\.json$/i, 'rules'],
];
const ARCHIVE = /\.auxesis$/i;

/**
 * `convert IN OUT`: writes the same cells in the format of OUT's ending. Workbooks and archives carry rules: those of
 * the input, or of a rule file given with `--rules`. What OUT does not say as IN does is listed, a line each.
 */
export function convert(
  [from = '', to = '']: readonly string[],
  { rules, ...options }: FileOptions & { readonly rules?: string },
): { readonly text: string; readonly told: readonly string[] } {
  const rich = RICH.find(([ending]) => ending.test(to))?.[1];
  if (rich ?? ARCHIVE.test(to)) {
    const given = { ...options, ...(rules === undefined ? {} : { rules }) };
    const { bytes, told } = rich ? telling(to, () => richFile(from, rich, given)) : archiveFile(from, given);
    write(to, bytes);
    return { text: '', told };
  }
  const { losses: told, ...table } = readTable(from, options);
  const written = /\.json$/i.test(to)
    ? writeJson(options.header ? table : withLabels(table))
    : writeCsv(table, separatorOf(to));
  if (typeof written === 'object') throw new BadInput(to, written.message);
  if (to === '-') return { text: written.trimEnd(), told };
  write(to, written);
  return { text: '', told };
}

function richFile(
  from: string,
  format: ExportFormatName,
  { rules, ...options }: FileOptions & { readonly rules?: string },
) {
  const file = readSheetFile(from, options);
  const given = rules === undefined ? undefined : readRules(rules);
  const saved = { ...savedLooks([], 'light'), ...file.looks, ...given?.looks };
  const evaluation = new Evaluation(file.sheet, saved, { now: serialInZone(options.nowMs, options.zone) });
  if (given) {
    const find = fieldByLabel(file.sheet);
    file.sheet.apply({ kind: 'remove-rules', rules: file.rules.map(({ id }) => id) });
    file.sheet.apply(putRules(storedInOrder(given.rules.map((rule) => mapRuleReferences(rule, { field: find })))));
  }
  evaluation.setRules(rulesOf(file.sheet).map(({ rule }) => rule));
  const { parts, report } = EXPORT_FORMATS[format].write(
    exportSource(evaluation, { name: nameOf(from), looks: saved }),
    {},
  );
  return {
    bytes: Buffer.concat([...parts].map((part) => Buffer.from(part))),
    told: [...file.losses, ...reportLines(report)],
  };
}

/** An archive of a file, with the history where it has one and its rules stay: inverses would not fit other rules. */
function archiveFile(from: string, { rules: path, ...options }: FileOptions & { readonly rules?: string }) {
  const { contents, changes: history, losses } = readContents(from, options);
  const { rows, parts = [], ...head } = path === undefined ? contents : withRules(contents, readRules(path));
  const changes = path === undefined ? history : [];
  const lines = [
    headLine({ ...head, parts }),
    ...rows.map(rowLine),
    ...changes.map((line) => `${line}\n`),
    endLine({ rows: rows.length, changes: changes.length }),
  ];
  const told =
    changes.length < history.length ? [...losses, 'The history is left out, since the rules are others'] : losses;
  return { bytes: gzipSync(lines.join('')), told };
}

function withRules(contents: SheetContents, given: RuleSet): SheetContents {
  const target = new Sheet(contents.fields, contents.settings);
  if (contents.rows.length) target.apply({ kind: 'insert-rows', rows: contents.rows });
  const { rules, looks } = rulesForSheet(given, target, ({ id }) => (/^[\w-]{1,64}$/.test(id) ? id : nanoid(10)));
  return { ...contents, rules: storedInOrder(rules), parts: [...(contents.parts ?? []), ...looks] };
}

const reportLines = ({ rules, notes }: ExportReport): string[] => [
  ...notes,
  ...fateGroups(rules)
    .filter(({ as, note }) => as !== 'rule' || note !== '')
    .map(({ names, as, note }) => `${namesOf(names)}: ${FATE_WORDS[as]}${note ? ` (${note})` : ''}`),
];

/** Rules that are named one by one. */
const MAX_NAMED = 3;

function namesOf(names: readonly string[]): string {
  const more = names.length - MAX_NAMED;
  const named = names.slice(0, MAX_NAMED).map((name) => `"${name}"`);
  return [...named, ...(more > 0 ? [counted(more, 'other rule')] : [])].join(', ');
}

const withLabels = ({ rows, width }: Table): Table => ({
  rows: [Array.from({ length: width }, (_, column) => columnLetters(column)), ...rows],
  width,
});

function write(path: string, content: string | Uint8Array): void {
  try {
    writeFileSync(path, content);
  } catch (error) {
    throw new BadInput(path, `it cannot be written (${codeOf(error)})`, { cause: error });
  }
}
