import { mapRuleReferences } from '../../core/rules/shape/map-rule-references';
import { kindOf } from '../../core/rules/kinds/registry';
import type { Rule } from '../../core/rules/shape/rule';
import { LinkedRules, type SaidRule } from '../../core/rules/sql/rules-as-sql';
import { isScale, positionsOfTable, withPositions, type ScaleWhen } from '../../core/rules/sql/table-positions';
import type { Problem } from '../../core/rules/terms';
import { itemAt } from '../../core/values/item-at';
import { serialInZone } from '../../core/values/dates/serial-in-zone';
import type { SheetSettings } from '../../core/sheet/sheet-settings';
import type { Sql } from 'sql-template-tag';
import type { LinkedConnection } from '../../linked/linked-connection';
import { runStatement } from '../../linked/run-statement';
import { WINDOW_ROWS, type LinkedJudgement, type WindowAsked } from '../../protocol/linked-table';
import { refusalText } from '../../texts/refusal-text';
import { asking, type LinkedSheet } from './linked-sheet';
import { rowIdOf } from './open-window';

interface Judged {
  readonly rule: Rule;
  readonly window: WindowAsked;
  readonly settings: SheetSettings;
}

/** What a rule comes to over all records of a linked table, and over those of a window where it needs all of them. */
export async function judgeRule(
  { table, connection }: LinkedSheet,
  { rule: given, window, settings }: Judged,
): Promise<LinkedJudgement> {
  const columnOf = new Map(table.columns.map(({ field, name }) => [field, name]));
  const rule = { ...mapRuleReferences(given, { field: (id) => columnOf.get(id) ?? id }), on: true };
  const zone = settings.zone ?? 'UTC';
  const moment = { now: serialInZone(Date.now(), zone), zone, firstWeekday: settings.firstWeekday ?? 0 };
  const linked = new LinkedRules(table, [rule], moment);
  const said = itemAt(linked.rules, 0);
  if (said.problem) return { problem: said.problem.message };
  const [counts = {}] = await asking(() => runStatement(connection, linked.counts('looks')));
  const total = {
    problem: null,
    read: Number(counts['n']) * said.outcomes.length,
    matched: said.outcomes.reduce((sum, _, at) => sum + Number(counts[`o${at + 1}`]), 0),
  } as const;
  if (kindOf(rule.when).isByRecord?.(rule.when)) return total;
  if (isScale(rule.when)) {
    const when = await placed(connection, positionsOfTable(table, { ...rule, when: rule.when }, moment), rule.when);
    // Fields of the sheet again: the condition itself names none.
    return when ? { ...total, when } : { problem: refusalText('scaleOfGroupsUnsaid') };
  }
  const rows = await asking(() => runStatement(connection, linked.outcomes({ ...window, limit: WINDOW_ROWS })));
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
  connection: LinkedConnection,
  statement: Sql | Problem | null,
  when: ScaleWhen,
): Promise<ScaleWhen | null> {
  if (!statement || 'code' in statement) return null;
  const [row = {}] = await asking(() => runStatement(connection, statement));
  return withPositions(
    when,
    Object.keys(row).map((_, at) => Number(row[`p${at}`] ?? NaN)),
  );
}

const outcomesOf = ({ outcomes }: SaidRule) =>
  outcomes.map(({ column }, at) => ({ column: column.name, name: `o${at + 1}` }));

const outcomeOf = (value: unknown): number | null => (typeof value === 'number' ? value : null);
