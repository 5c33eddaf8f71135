import { itemAt } from '../core/values/item-at';
import { rulesPutBy } from '../core/rules/shape/stored-rule';
import { advise } from '../core/rules/advice/registry';
import { Evaluation } from '../core/rules/evaluate/evaluation';
import { reportEvaluation } from '../core/rules/evaluate/evaluate-report';
import { mapRuleReferences } from '../core/rules/shape/map-rule-references';
import { fieldByLabel, type RuleSet } from '../core/rules/shape/read-rule-set';
import { storedInOrder } from '../core/rules/shape/stored-in-order';
import { traceCell } from '../core/rules/explain/trace';
import { cellAddress, columnLetters, parseAddress } from '../core/sheet/address';
import type { Operation } from '../core/sheet/change';
import type { Sheet } from '../core/sheet/sheet';
import { sheetFromTable } from '../core/sheet/sheet-from-table';
import { makeFormula, FormulaShapes, cellValueOf, valueAt } from '../core/formula/run/make-formula';
import { newCursor } from '../core/formula/values/place';
import { TOO_MUCH_WORK } from '../core/formula/calculate/calculation';
import { WORK_LIMITS } from '../core/formula/values/work-meter';
import type { CellValue } from '../core/values/cell-value';
import { isoFromSerial } from '../core/values/dates/date-serial';
import { serialInZone } from '../core/values/dates/serial-in-zone';
import type { Answer } from './answer';
import { BadInput } from './bad-input';
import { convert } from './convert';
import { evaluateLinked, isDatabase, type LinkedOptions } from './linked';
import { logger, push } from './over-http';
import { readRules } from './read-rules';
import { placeOf } from './read-bytes';
import type { FileOptions } from './read-contents';
import { readSheetFile } from './read-sheet-file';

const done = (text: string): Answer => ({ text, code: 0 });

/**
 * `evaluate DATA [RULES]`: the report as JSON text. With `failIf`, code 1 where the rule with this id matches anything.
 */
export function evaluateCommand(
  [data = '', rules]: readonly (string | undefined)[],
  { failIf, ...options }: FileOptions & LinkedOptions,
): Answer | Promise<Answer> {
  if (isDatabase(data))
    return evaluateLinked([data, rules], { ...options, ...(failIf === undefined ? {} : { failIf }) });
  const { evaluation, place } = open(data, rules, options);
  const report = reportEvaluation(evaluation);
  const watched = report.rules.find(({ id }) => id === failIf);
  if (failIf !== undefined && !watched)
    throw new BadInput('command line', `--fail-if is "${failIf}"; expected the id of a rule in ${place}`);
  if (watched?.problem) throw new BadInput(place, `the rule "${failIf}" cannot be judged: ${watched.problem.message}`);
  return { text: JSON.stringify(report, null, 2), code: watched?.matched.length ? 1 : 0 };
}

/** `convert IN OUT`: standard error lists what OUT does not say as IN does. */
export function convertCommand(
  paths: readonly (string | undefined)[],
  options: FileOptions & { readonly rules?: string },
): Answer {
  const { text, told } = convert(paths as readonly string[], options);
  for (const line of told) process.stderr.write(`auxesis: ${line}\n`);
  return done(text);
}

/** `explain DATA [RULES] CELL`: the trace of one cell as JSON text. */
export function explainCommand(
  [data = '', rules, cell = '']: readonly (string | undefined)[],
  options: FileOptions,
): Answer {
  const at = parseAddress(cell);
  if (!at) throw new BadInput('command line', `"${cell}" is not a cell; expected an address such as C5`);
  const { evaluation, looks } = open(data, rules, options);
  const { sheet } = evaluation;
  const slot = sheet.order[at.position];
  if (slot === undefined || at.column >= sheet.fields.length)
    throw new BadInput(
      data,
      `there is no cell ${cell}; the sheet has ${sheet.fields.length} fields and ${sheet.rowCount} rows`,
    );
  return done(JSON.stringify(traceCell(evaluation, looks, { column: at.column, slot }), null, 2));
}

/** `advise DATA [RULES]`: advice on the rules, as JSON text. */
export function adviseCommand([data = '', rules]: readonly (string | undefined)[], options: FileOptions): Answer {
  const { evaluation, looks } = open(data, rules, options);
  const stored = storedInOrder(evaluation.activeRules.map(({ rule }) => rule));
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
    return {
      ...operation,
      rules: rulesPutBy(operation).map(({ rule, ...rest }) => ({
        ...rest,
        rule: mapRuleReferences(rule, { field: labelOf }),
      })),
    };
  if (operation.kind !== 'set-cells') return operation;
  const cells = operation.cells.flatMap((change) => {
    const cell = sheet.findCell(change);
    return cell ? [{ cell: cellAddress(cell.column, sheet.positionOf(cell.slot)), input: change.input }] : [];
  });
  return { ...operation, cells };
}

/** `calculate FORMULA`: its value as JSON text. */
export function calculateCommand(
  [text = '']: readonly (string | undefined)[],
  { data, at, ...options }: FileOptions & { data?: string; at?: string },
): Answer {
  const sheet =
    data === undefined ? sheetFromTable({ rows: [], width: 0 }, options) : readSheetFile(data, options).sheet;
  const cell = at === undefined ? { column: 0, position: 0 } : parseAddress(at);
  if (!cell) throw new BadInput('command line', `--at is "${at}"; expected a cell such as B2`);
  const formulaText = text.replace(/^=?/, '=');
  const { calculation } = new Evaluation(sheet, {}, { now: serialInZone(options.nowMs, options.zone) });
  const { context } = calculation;
  const formula = makeFormula(formulaText, { context, shapes: new FormulaShapes() });
  if (formula.isUnread) throw new BadInput('formula', itemAt(formula.diagnostics, 0).message);
  const slot = sheet.order[cell.position] ?? -1;
  const value = cellValueOf(
    valueAt(formula, { ...newCursor(context), column: cell.column, slot, position: cell.position }),
  );
  return done(JSON.stringify(calculated(value)));
}

function calculated(value: CellValue): { type: string; value: unknown; message?: string } {
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
      return {
        type: 'error',
        value: value.error,
        ...(value.error === '#LIMIT!' ? { message: TOO_MUCH_WORK.formula(WORK_LIMITS) } : {}),
      };
  }
}

/** A data file and its rules: those of a rule file, or a workbook's own where none is given. */
function open(
  data: string,
  rules: string | undefined,
  options: FileOptions,
): { evaluation: Evaluation; looks: RuleSet['looks']; place: string } {
  if (data === '-' && rules === '-')
    throw new BadInput('command line', 'only one of DATA and RULES can be read from standard input');
  const given = rules === undefined ? undefined : readRules(rules);
  const file = readSheetFile(data, options);
  if (!given && file.rules.length === 0)
    throw new BadInput(placeOf(data), 'there are no rules in it; give a rule file, RULES, after it');
  const looks = given?.looks ?? file.looks;
  const evaluation = new Evaluation(file.sheet, looks, { now: serialInZone(options.nowMs, options.zone) });
  const find = fieldByLabel(file.sheet);
  evaluation.setRules(given ? given.rules.map((rule) => mapRuleReferences(rule, { field: find })) : file.rules);
  return { evaluation, looks, place: placeOf(rules ?? data) };
}

/** `push FILE`: what became of the records, as JSON text. */
export const pushCommand = async (
  paths: readonly (string | undefined)[],
  options: Parameters<typeof push>[1],
): Promise<Answer> => done(await push(paths as readonly string[], options));

/** `logger`: what was sent, as JSON text, once it has ended. */
export const loggerCommand = async (
  _: readonly (string | undefined)[],
  options: Parameters<typeof logger>[0],
): Promise<Answer> => done(await logger(options));
