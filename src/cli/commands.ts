import { readFileSync, writeFileSync } from 'node:fs';
import { generateNKeysBetween } from 'fractional-indexing';
import { readCsv } from '../core/exchange/csv/read-csv';
import { writeCsv } from '../core/exchange/csv/write-csv';
import { readJson } from '../core/exchange/json/read-json';
import { writeJson } from '../core/exchange/json/write-json';
import type { Table } from '../core/exchange/table';
import { advise } from '../core/rules/advice/registry';
import { evaluateData, type DataOptions } from '../core/rules/evaluate-data';
import { Evaluation } from '../core/rules/evaluation';
import { reportEvaluation } from '../core/rules/evaluate-report';
import { mapRuleReferences } from '../core/rules/map-rule-references';
import { readRuleSet, type RuleSet } from '../core/rules/read-rule-set';
import { traceCell } from '../core/rules/trace';
import { cellAddress, columnLetters, parseAddress } from '../core/sheet/address';
import type { CellInput, Operation } from '../core/sheet/change';
import type { Sheet } from '../core/sheet/sheet';
import { sheetFromTable } from '../core/sheet/sheet-from-table';
import { makeFormula, FormulaShapes, cellValueOf, valueAt } from '../core/formula/make-formula';
import { newPlace } from '../core/formula/place';
import type { CellValue } from '../core/values/cell-value';
import { isoFromSerial } from '../core/values/date-serial';
import { serialInZone } from '../core/values/serial-in-zone';
import { BadInput } from './bad-input';

/** What a command prints, and the code it ends with. */
export interface Answer {
  readonly text: string;
  readonly code: 0 | 1;
}

const done = (text: string): Answer => ({ text, code: 0 });

/** `evaluate DATA RULES`: the report as JSON text. With `failIf`, code 1 where the rule with this id matches anything. */
export function evaluateCommand([data, rules]: readonly string[], { failIf, ...options }: DataOptions & { failIf?: string }): Answer {
  const { evaluation } = open(data!, rules!, options);
  const report = reportEvaluation(evaluation);
  const watched = report.rules.find(({ id }) => id === failIf);
  if (failIf !== undefined && !watched)
    throw new BadInput('command line', `--fail-if is "${failIf}"; expected the id of a rule in ${placeOf(rules!)}`);
  if (watched?.problem) throw new BadInput(placeOf(rules!), `the rule "${failIf}" cannot be judged: ${watched.problem.message}`);
  return { text: JSON.stringify(report, null, 2), code: watched?.matched.length ? 1 : 0 };
}

/** `convert IN OUT`: writes the same cells in the format that the ending of the file names. */
export function convertCommand([from, to]: readonly string[], options: DataOptions): Answer {
  const table = readTable(from!);
  const written = /\.json$/i.test(to!) ? writeJson(options.header ? table : withLabels(table)) : writeCsv(table, separatorOf(to!));
  if (typeof written === 'object') throw new BadInput(to!, written.message);
  if (to === '-') return done(written.trimEnd());
  try {
    writeFileSync(to!, written);
  } catch (error) {
    throw new BadInput(to!, `it cannot be written (${(error as NodeJS.ErrnoException).code})`, { cause: error });
  }
  return done('');
}

const withLabels = ({ rows, width }: Table): Table => ({
  rows: [Array.from({ length: width }, (_, column) => columnLetters(column)), ...rows],
  width,
});

/** `explain DATA RULES CELL`: the trace of one cell as JSON text. */
export function explainCommand([data, rules, cell]: readonly string[], options: DataOptions): Answer {
  const at = parseAddress(cell!);
  if (!at) throw new BadInput('command line', `"${cell}" is not a cell; expected an address such as C5`);
  const { evaluation, looks } = open(data!, rules!, options);
  const { sheet } = evaluation;
  const slot = sheet.order[at.position];
  if (slot === undefined || at.column >= sheet.fields.length)
    throw new BadInput(data!, `there is no cell ${cell}; the sheet has ${sheet.fields.length} fields and ${sheet.rowCount} rows`);
  return done(JSON.stringify(traceCell(evaluation, looks, { column: at.column, slot }), null, 2));
}

/** `advise DATA RULES`: what there is to say of the rules, as JSON text. */
export function adviseCommand([data, rules]: readonly string[], options: DataOptions): Answer {
  const { evaluation, looks } = open(data!, rules!, options);
  const ordered = evaluation.running.map(({ rule }) => rule);
  const keys = generateNKeysBetween(null, null, ordered.length);
  const stored = ordered.map((rule, at) => ({ id: rule.id, key: keys[at]!, rule }));
  const advice = advise({ evaluation, stored, saved: looks });
  const told = advice.map(({ repair, ...rest }) => ({
    ...rest,
    repair: repair?.map((operation) => repairTold(operation, evaluation.sheet)) ?? null,
  }));
  return done(JSON.stringify(told, null, 2));
}

/** A repair in the words of files: fields by label, cells by address. */
function repairTold(operation: Operation, sheet: Sheet): object {
  const labelOf = (id: string) => {
    const column = sheet.findColumn(id);
    return column === undefined ? id : (sheet.labelOf(column) ?? columnLetters(column));
  };
  if (operation.kind === 'put-rules')
    return { ...operation, rules: operation.rules.map(({ rule, ...rest }) => ({ ...rest, rule: mapRuleReferences(rule, { field: labelOf }) })) };
  if (operation.kind !== 'set-cells') return operation;
  const addressOf = ({ row, field }: CellInput) => cellAddress(sheet.findColumn(field)!, sheet.positionOf(sheet.findSlot(row)!));
  return { ...operation, cells: operation.cells.map((cell) => ({ cell: addressOf(cell), input: cell.input })) };
}

/** `calculate FORMULA`: its value as JSON text. */
export function calculateCommand([text]: readonly string[], { data, at, ...options }: DataOptions & { data?: string; at?: string }): Answer {
  const sheet = data === undefined ? sheetFromTable({ rows: [], width: 0 }, options) : readData(data, options);
  const cell = at === undefined ? { column: 0, position: 0 } : parseAddress(at);
  if (!cell) throw new BadInput('command line', `--at is "${at}"; expected a cell such as B2`);
  const formulaText = text!.replace(/^=?/, '=');
  const { calculation } = new Evaluation(sheet, {}, { now: serialInZone(options.nowMs, options.zone) });
  const { context } = calculation;
  const formula = makeFormula(formulaText, { context, shapes: new FormulaShapes() });
  if (formula.isUnread) throw new BadInput('formula', formula.diagnostics[0]!.message);
  const slot = sheet.order[cell.position] ?? -1;
  const value = cellValueOf(valueAt(formula, { ...newPlace(context), column: cell.column, slot, position: cell.position }));
  return done(JSON.stringify(calculated(value)));
}

function calculated(value: CellValue): { type: string; value: unknown } {
  switch (value.kind) {
    case 'blank':
      return { type: 'blank', value: null };
    case 'number':
      return { type: 'number', value: value.number };
    case 'text':
      return { type: 'text', value: value.text };
    case 'logical':
      return { type: 'logical', value: value.logical };
    case 'date':
      return { type: 'date', value: isoFromSerial(value.serial) };
    case 'error':
      return { type: 'error', value: value.error };
  }
}

function open(data: string, rules: string, options: DataOptions): { evaluation: Evaluation; looks: RuleSet['looks'] } {
  if (data === '-' && rules === '-') throw new BadInput('command line', 'only one of DATA and RULES can be read from standard input');
  const ruleSet = readRules(rules);
  return { evaluation: evaluateData(readTable(data), ruleSet, options), looks: ruleSet.looks };
}

const readData = (path: string, options: DataOptions): Sheet => sheetFromTable(readTable(path), options);

const separatorOf = (path: string): ',' | '\t' => (/\.(tsv|tab)$/i.test(path) ? '\t' : ',');

function readTable(path: string): Table {
  const text = readText(path);
  const table = /\.json$/i.test(path) || (path === '-' && /^\s*\[/.test(text)) ? readJson(text) : readCsv(text, separatorOf(path));
  if ('message' in table) throw new BadInput([placeOf(path), table.place].filter(Boolean).join(', '), table.message);
  return table;
}

function readRules(path: string): RuleSet {
  const place = placeOf(path);
  const text = readText(path);
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch (error) {
    throw new BadInput(place, `not JSON: ${(error as Error).message}`, { cause: error });
  }
  const read = readRuleSet(json);
  if ('message' in read) throw new BadInput(place, read.message);
  return read.rules;
}

const placeOf = (path: string): string => (path === '-' ? 'standard input' : path);

function readText(path: string): string {
  let bytes: Buffer;
  try {
    bytes = readFileSync(path === '-' ? 0 : path);
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    const why =
      code === 'ENOENT'
        ? 'there is no such file'
        : code === 'EISDIR'
          ? 'this is a folder; expected a file'
          : code === 'EACCES'
            ? 'it may not be read'
            : `it cannot be read (${code})`;
    throw new BadInput(path, why, { cause: error });
  }
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch (error) {
    throw new BadInput(placeOf(path), 'it is not UTF-8 text', { cause: error });
  }
}
