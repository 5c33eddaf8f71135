import { mapRuleReferences } from '../../core/rules/shape/map-rule-references';
import { kindOf } from '../../core/rules/kinds/registry';
import type { Rule } from '../../core/rules/shape/rule';
import { LinkedRules, type SaidRule } from '../../core/rules/sql/rules-as-sql';
import { isScale, positionsOfTable, withPositions, type ScaleWhen } from '../../core/rules/sql/table-positions';
import type { Problem } from '../../core/rules/terms';
import { itemAt } from '../../core/values/item-at';
import { serialInZone } from '../../core/values/dates/serial-in-zone';
import type { Sql } from 'sql-template-tag';
import { runStatement } from '../../linked/run-statement';
import { WINDOW_ROWS, type LinkedJudgement, type WindowAsked } from '../../protocol/linked-table';
import { refusalText } from '../../texts/refusal-text';
import type { LinkedSheet } from './linked-sheet';
import { keyOf, rowIdOf } from './open-window';

interface Judged {
  readonly rule: Rule;
  readonly window: WindowAsked;
}

/** Rules over the columns of a table, and the moment by which they are judged. */
export function ofTable({ table, settings }: LinkedSheet, given: readonly Rule[]) {
  const columnOf = new Map(table.columns.map(({ field, name }) => [field, name]));
  const rules = given.map((rule) => mapRuleReferences(rule, { field: (id) => columnOf.get(id) ?? id }));
  const zone = settings.zone ?? 'UTC';
  const moment = { now: serialInZone(Date.now(), zone), zone, firstWeekday: settings.firstWeekday ?? 0 };
  return { rules, moment, linked: new LinkedRules(table, rules, moment) };
}

/** The key of the next row after one, or of the first of all, in which a rule gives a look; null where there is none. */
export async function nextRow(
  sheet: LinkedSheet,
  { rule, after }: { readonly rule: Rule; readonly after?: readonly string[] },
): Promise<{ readonly key: readonly string[] | null }> {
  const { linked } = ofTable(sheet, [{ ...rule, on: true }]);
  const [row] = await sheet.ask((connection) => runStatement(connection, linked.next(after)));
  return { key: row ? keyOf(row, sheet.table.key.length) : null };
}

/** What a rule comes to over all records of a linked table, and over those of a window where it needs all of them. */
export async function judgeRule(sheet: LinkedSheet, { rule: given, window }: Judged): Promise<LinkedJudgement> {
  const { table, ask } = sheet;
  const { rules, moment, linked } = ofTable(sheet, [{ ...given, on: true }]);
  const rule = itemAt(rules, 0);
  const said = itemAt(linked.rules, 0);
  if (said.problem) return { problem: said.problem.message };
  const [counts = {}] = await ask((connection) => runStatement(connection, linked.counts('looks')));
  const total = {
    problem: null,
    read: Number(counts['n']) * said.outcomes.length,
    matched: said.outcomes.reduce((sum, _, at) => sum + Number(counts[`o${at + 1}`]), 0),
  } as const;
  if (kindOf(rule.when).isByRecord?.(rule.when)) return total;
  if (isScale(rule.when)) {
    const when = await placed(ask, positionsOfTable(table, { ...rule, when: rule.when }, moment), rule.when);
    // Fields of the sheet again: the condition itself names none.
    return when ? { ...total, when } : { problem: refusalText('scaleOfGroupsUnsaid') };
  }
  const rows = await ask((connection) => runStatement(connection, linked.outcomes({ ...window, limit: WINDOW_ROWS })));
  const fieldOf = new Map(table.columns.map(({ field, name }) => [name, field]));
  return {
    ...total,
    rows: rows.map((row) => rowIdOf(row, table.key.length)),
    outcomes: Object.fromEntries(
      outcomesOf(said).map(({ column, name }) => [
        fieldOf.get(column) ?? column,
        rows.map((row) => outcomeOf(row[name])),
      ]),
    ),
  };
}

/** A condition with the numbers of its positions; null where each group has its own. */
async function placed(
  ask: LinkedSheet['ask'],
  statement: Sql | Problem | null,
  when: ScaleWhen,
): Promise<ScaleWhen | null> {
  if (!statement || 'code' in statement) return null;
  const [row = {}] = await ask((connection) => runStatement(connection, statement));
  return withPositions(
    when,
    Object.keys(row).map((_, at) => Number(row[`p${at}`] ?? NaN)),
  );
}

const outcomesOf = ({ outcomes }: SaidRule) =>
  outcomes.map(({ column }, at) => ({ column: column.name, name: `o${at + 1}` }));

const outcomeOf = (value: unknown): number | null => (typeof value === 'number' ? value : null);
