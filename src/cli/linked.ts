import { messageOf } from '../core/values/error-message';
import { serialInZone } from '../core/values/dates/serial-in-zone';
import { isoFromSerial } from '../core/values/dates/date-serial';
import { mapRuleReferences } from '../core/rules/shape/map-rule-references';
import type { RuleSet } from '../core/rules/shape/read-rule-set';
import { ruleSentence } from '../core/rules/shape/sentence-words';
import { columnByLabel, linkedColumn, type LinkedTable } from '../core/rules/sql/linked-table';
import { literalStatement } from '../core/rules/sql/literal-statement';
import { LinkedRules } from '../core/rules/sql/rules-as-sql';
import { connectLinked, type LinkedConnection } from '../linked/linked-connection';
import { NotLinked, readLinkedTable } from '../linked/read-linked-table';
import { runStatement } from '../linked/run-statement';
import type { Answer } from './answer';
import { BadInput } from './bad-input';
import { placeOf } from './read-bytes';
import { readRules } from './read-rules';

export interface LinkedOptions {
  readonly nowMs: number;
  readonly zone?: string;
  readonly firstWeekday?: number;
  readonly table?: string;
  readonly key?: readonly string[];
  readonly database?: string;
  readonly columns?: string;
  readonly as?: string;
  readonly failIf?: string;
}

/** Whether DATA is a database. */
export const isDatabase = (data: string | undefined): data is string => /^postgres(ql)?:\/\//.test(data ?? '');

/**
 * `sql RULES --table T`: a view of the table with the outcomes of the rules beside its columns, as SQL. Types of columns
 * come from `--database`, or from `--columns`.
 */
export async function sqlCommand(
  [rules = '']: readonly (string | undefined)[],
  options: LinkedOptions,
): Promise<Answer> {
  const { table: name, database, columns, as } = options;
  if (name === undefined) throw new BadInput('command line', 'sql needs --table with the name of a table or view');
  if ((database === undefined) === (columns === undefined))
    throw new BadInput(
      'command line',
      'sql needs either --database postgres://... or --columns NAME:TYPE,..., as comparisons depend on the types of columns',
    );
  const set = readRules(rules);
  const table =
    database === undefined
      ? { name: namesIn(name), columns: columnsGiven(columns ?? ''), key: options.key ?? [] }
      : await withDatabase(database, (connection) => readLinkedTable(connection, name, options.key));
  const linked = linkedRules(table, set, options);
  const view = linked.view(({ id }, column) => `${id}: ${column.name}`);
  const unsaid = linked.rules.flatMap(({ rule, problem }) => (problem ? [`-- ${rule.name}: ${problem.message}`] : []));
  const last = table.name.at(-1) ?? '';
  const lines = [
    `-- ${linked.rules.length - unsaid.length} of ${linked.rules.length} rules, as of ${isoFromSerial(momentOf(options))}; rules over today are of that day.`,
    ...unsaid,
    `create view ${quoted(as ?? `${last}_rules`)} as`,
    `${literalStatement(view).trim()};`,
  ];
  return { text: lines.join('\n'), code: 0 };
}

/** `evaluate postgres://... RULES --table T`: how many cells each rule matches, as JSON text. */
export async function evaluateLinked(
  [database = '', rules]: readonly (string | undefined)[],
  options: LinkedOptions,
): Promise<Answer> {
  const { table: name, failIf } = options;
  if (name === undefined)
    throw new BadInput('command line', 'evaluate needs --table with the name of a table or view of the database');
  if (rules === undefined) throw new BadInput('command line', 'evaluate needs a rule file, RULES, after the database');
  const set = readRules(rules);
  const counted = await withDatabase(database, async (connection) => {
    const table = await readLinkedTable(connection, name, options.key);
    const linked = linkedRules(table, set, options);
    const [counts = {}] = await runStatement(connection, linked.counts());
    let at = 0;
    const fields = table.columns.map((column) => ({ id: column.name, label: column.name, format: null, unit: null }));
    return linked.rules.map(({ rule, problem, outcomes }) => {
      const columns = outcomes.map(({ column }) => [column.name, Number(counts[`o${++at}`])] as const);
      return {
        id: rule.id,
        name: rule.name,
        sentence: ruleSentence(fields, rule),
        matched: columns.reduce((sum, [, count]) => sum + count, 0),
        columns: Object.fromEntries(columns),
        problem,
      };
    });
  });
  const watched = counted.find(({ id }) => id === failIf);
  if (failIf !== undefined && !watched)
    throw new BadInput('command line', `--fail-if is "${failIf}"; expected the id of a rule in ${placeOf(rules)}`);
  if (watched?.problem)
    throw new BadInput(placeOf(rules), `the rule "${failIf}" cannot be judged: ${watched.problem.message}`);
  return { text: JSON.stringify({ table: name, rules: counted }, null, 2), code: watched?.matched ? 1 : 0 };
}

const momentOf = ({ nowMs, zone }: LinkedOptions): number => serialInZone(nowMs, zone);

function linkedRules(table: LinkedTable, { rules }: RuleSet, options: LinkedOptions): LinkedRules {
  const { zone = 'UTC', firstWeekday = 0 } = options;
  const named = rules.map((rule) => mapRuleReferences(rule, { field: columnByLabel(table) }));
  return new LinkedRules(table, named, { now: momentOf(options), zone, firstWeekday });
}

async function withDatabase<T>(url: string, task: (connection: LinkedConnection) => Promise<T>): Promise<T> {
  const connection = connectLinked(url);
  try {
    return await task(connection);
  } catch (error) {
    if (error instanceof BadInput) throw error;
    if (error instanceof NotLinked) throw new BadInput('database', error.message, { cause: error });
    throw new BadInput('database', `it cannot be asked: ${messageOf(error)}`, { cause: error });
  } finally {
    await connection.end({ timeout: 5 });
  }
}

const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/** The parts of a name such as readings, water.readings or "Water 2026".readings, as SQL reads it. */
function namesIn(name: string): string[] {
  const parts = [...name.matchAll(/"((?:[^"]|"")+)"|([^".]+)/g)];
  return parts.map(([, exact, plain = '']) =>
    exact === undefined ? plain.toLowerCase() : exact.replaceAll('""', '"'),
  );
}

/** Columns as they are named on the command line: Station:text,Oxygen:float8. */
function columnsGiven(text: string) {
  return text.split(',').map((given) => {
    const [name = '', type = ''] = given.split(':').map((part) => part.trim());
    const column = linkedColumn(name, TYPE_WORDS[type.toLowerCase()] ?? type.toLowerCase());
    if (name === '' || !column)
      throw new BadInput(
        'command line',
        `--columns has "${given}"; expected a name and a type of PostgreSQL such as Oxygen:float8, Station:text or Day:date`,
      );
    return column;
  });
}

/** Types by the names that SQL has for them. */
const TYPE_WORDS: Readonly<Record<string, string>> = {
  smallint: 'int2',
  integer: 'int4',
  int: 'int4',
  bigint: 'int8',
  real: 'float4',
  'double precision': 'float8',
  decimal: 'numeric',
  boolean: 'bool',
  'character varying': 'varchar',
  char: 'bpchar',
};
