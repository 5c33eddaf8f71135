import sql, { join, raw, type Sql } from 'sql-template-tag';
import { kindOf } from '../kinds/registry';
import type { Rule } from '../shape/rule';
import { sentenceWords, type NamedField } from '../shape/sentence-words';
import { isProblem, missingField, type Problem } from '../terms';
import { columnOf, identifier, type LinkedColumn, type LinkedTable } from './linked-table';
import { sayCondition } from './registry';
import { keyTexts, valueText, windowLimits, type TableWindow } from './table-window';
import { numberList, valuesOfTable } from './table-profile';
import { NoOrder, SqlContext, unsaid, type LinkedSettings } from './sql-context';

/** A rule over a linked table: the outcome of each column that it reads; or why it cannot work there. */
export interface SaidRule {
  readonly rule: Rule;
  readonly problem: Problem | null;
  readonly outcomes: readonly { readonly column: LinkedColumn; readonly outcome: Sql }[];
}

/** Rules over a linked table as statements, which share what they need to know of the whole table. */
export class LinkedRules {
  readonly rules: readonly SaidRule[];
  private readonly context: SqlContext;

  constructor(table: LinkedTable, rules: readonly Rule[], settings: LinkedSettings) {
    this.context = new SqlContext(table, settings);
    this.rules = rules.filter(({ on }) => on).map((rule) => this.said(rule));
  }

  private said(rule: Rule): SaidRule {
    const failed = (problem: Problem): SaidRule => ({ rule, problem, outcomes: [] });
    const { reads, when } = rule;
    if (!('fields' in reads)) return failed(unsaid('ranges of cells, as a linked table has no addresses'));
    if ((reads.roles ?? []).some((role) => role !== 'record')) return failed(unsaid('other rows than records'));
    const read = this.context.table.columns.filter(({ name }) => reads.fields.includes(name));
    const missing = reads.fields.find((field) => !read.some(({ name }) => name === field));
    if (missing !== undefined) return failed(missingField(missing));
    try {
      const said = sayCondition(when, this.context, read);
      if (isProblem(said)) return failed(said);
      return { rule, problem: null, outcomes: read.map((column) => ({ column, outcome: said(column) })) };
    } catch (error) {
      if (error instanceof NoOrder)
        return failed(
          unsaid('which record comes first: name the columns that order the table, which has no primary key'),
        );
      throw error;
    }
  }

  /** Each outcome under a name of its own: o1, o2 and so on, in the order of rules and columns. */
  private named(): Sql[] {
    return this.rules
      .flatMap(({ outcomes }) => outcomes)
      .map(({ outcome }, at) => sql`${outcome} as ${raw(`o${at + 1}`)}`);
  }

  /** The rows of a window with the outcomes beside them, and their keys as texts. */
  outcomes(window: TableWindow): Sql {
    const { table } = this.context;
    return this.context.statement(join([keyTexts(table), ...this.named()], ', '), windowLimits(table, window));
  }

  /** The key of the first row after one, or of all, in which a cell is given a look by any of the rules. */
  next(after?: readonly string[]): Sql {
    const { table } = this.context;
    const window = { ...(after ? { after } : {}), limit: 1 };
    return this.context.statement(keyTexts(table), windowLimits(table, window, anyOf(this.rules.map(looksAt))));
  }

  /**
   * All rows in which a cell is given a look, in no order: their values as texts, as c1 and so on, and whether each rule
   * gives one, as r1 and so on.
   */
  painted(): Sql {
    const { table, settings } = this.context;
    const values = table.columns.map((column, at) => sql`${valueText(column, settings.zone)} as ${raw(`c${at + 1}`)}`);
    const looks = this.rules.map(looksAt);
    const told = looks.map((look, at) => sql`coalesce(${look}, false) as ${raw(`r${at + 1}`)}`);
    return this.context.statement(join([...values, ...told], ', '), sql`where ${anyOf(looks)}`);
  }

  /**
   * How many cells of each rule and column have an outcome, or one with a look: one row, with o1, o2 and so on, and the
   * rows as `n`.
   */
  counts(of: 'outcomes' | 'looks' = 'outcomes'): Sql {
    const counted = this.named();
    const shown = this.rules.flatMap(({ rule, outcomes }) => outcomes.map(() => shownOutcomes(rule)));
    const names = counted.map((_, at) => {
      const [name, looked] = [raw(`o${at + 1}`), of === 'looks' ? shown[at] : null];
      if (!looked) return sql`count(${name})::int8 as ${name}`;
      return sql`(count(*) filter (where ${name} = any(${raw(`'{${looked.join(',')}}'`)}::int[])))::int8 as ${name}`;
    });
    const said = this.context.statement(join([sql`1 as one`, ...counted], ', '), sql``);
    return sql`select ${join([sql`count(*)::int8 as n`, ...names], ', ')} from (${said}) said`;
  }

  /** The cells that the rules read, one under the other: `value`, said of each column, and the outcome. */
  private cells(valueOf: (column: LinkedColumn) => Sql | null): Sql {
    const said = this.rules
      .flatMap(({ outcomes }) => outcomes)
      .flatMap(({ column, outcome }, at) => {
        const value = valueOf(column);
        const [x, o] = [raw(`x${at}`), raw(`o${at}`)];
        return value ? [{ pair: sql`(${x}, ${o})`, says: sql`${value} as ${x}, ${outcome} as ${o}` }] : [];
      });
    if (said.length === 0) return sql`(select null as value, null::int as outcome where false) cells`;
    const rows = this.context.statement(
      join(
        said.map(({ says }) => says),
        ', ',
      ),
      sql``,
    );
    const pairs = said.map(({ pair }) => pair);
    return sql`(${rows}) said, lateral (values ${join(pairs, ', ')}) cells (value, outcome)`;
  }

  /** What the bench says of the values that the rules read (see `valuesOfTable`). */
  values(thresholds: readonly number[]): Sql {
    const read = new Set(this.rules.flatMap(({ outcomes }) => outcomes.map(({ column }) => column)));
    return valuesOfTable(this.context, [...read], thresholds);
  }

  /** How many numbers of each bin have each outcome: `bin` from 1, `outcome` (NULL for none), `count`. */
  bins(edges: readonly number[]): Sql {
    const cells = this.cells((column) => this.context.values.amount(column));
    return sql`select width_bucket(value::float8, ${numberList(edges)}) as bin, outcome, count(*) as count
      from ${cells} where value is not null group by 1, 2`;
  }

  /** The most frequent texts of the columns read: `text`, `count` and the outcome of one of them. */
  texts(most: number): Sql {
    const cells = this.cells(({ name, type }) => (type === 'text' ? sql`btrim(${columnOf(name)}::text)` : null));
    return sql`select value::text as text, count(*) as count, min(outcome) as outcome
      from ${cells} where value::text <> '' group by 1 order by 2 desc, 1 limit ${raw(String(most))}`;
  }

  /**
   * All columns of the table with one more for each rule and column: whether it matches, or its outcome in words; where
   * outcomes have none, by number. For a view.
   */
  view(nameOf: (rule: Rule, column: LinkedColumn) => string): Sql {
    const { columns } = this.context.table;
    const fields = columns.map(({ name }) => ({ id: name, label: name, format: null, unit: null }));
    const said = this.rules.flatMap(({ rule, outcomes }) =>
      outcomes.map(
        ({ column, outcome }) => sql`${toldOutcome(rule, outcome, fields)} as ${identifier(nameOf(rule, column))}`,
      ),
    );
    const all = columns.map(({ name }) => columnOf(name));
    return this.context.statement(join([...all, ...said], ', '), sql``);
  }
}

/** The outcomes of a rule that have a look, where not all have; null for all. */
function shownOutcomes({ when }: Rule): readonly number[] | null {
  const looks = kindOf(when).outcomeLooks(when);
  return looks?.includes(null) ? looks.flatMap((look, outcome) => (look ? [outcome] : [])) : null;
}

/** Whether a rule gives any cell of a row a look. */
function looksAt({ rule, outcomes }: SaidRule): Sql {
  const shown = shownOutcomes(rule);
  return anyOf(
    outcomes.map(({ outcome }) =>
      shown ? sql`(${outcome}) = any(${raw(`'{${shown.join(',')}}'`)}::int[])` : sql`(${outcome}) is not null`,
    ),
  );
}

const anyOf = (conditions: readonly Sql[]): Sql =>
  conditions.length ? sql`(${join(conditions, ' or ')})` : sql`false`;

/** An outcome as it is read: true or false for a plain match. */
function toldOutcome({ when, reads }: Rule, outcome: Sql, fields: readonly NamedField[]): Sql {
  const kind = kindOf(when);
  if (kind.outcomes === 'match') return sql`(${outcome}) is not null`;
  const words = sentenceWords(fields, reads);
  const names = (kind.outcomeLooks(when) ?? []).map((_, at) => kind.outcomeName(when, at, words));
  if (names.length === 0 || names.includes('')) return outcome;
  return sql`(array[${join(
    names.map((name) => sql`${name}::text`),
    ', ',
  )}])[(${outcome}) + 1]`;
}
