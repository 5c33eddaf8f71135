import sql, { join, raw, type Sql } from 'sql-template-tag';
import type { FieldId } from '../../sheet/ids';
import type { Problem } from '../terms';
import { missingField } from '../terms';
import { ColumnValues } from './column-values';
import { identifier, tableName, type LinkedColumn, type LinkedTable } from './linked-table';

/** The moment, as a serial date, and the settings of the sheet that conditions depend on. */
export interface LinkedSettings {
  readonly now: number;
  readonly zone: string;
  readonly firstWeekday: number;
}

/** Why a rule cannot be said in SQL: what it would have to say. */
export const unsaid = (what: string): Problem => ({
  code: 'not-in-sql',
  message: `cannot be asked of a database: ${what}`,
});

/** A condition asks which record comes first, of a table whose rows have no order. */
export class NoOrder extends Error {}

/** The position of a row, where a condition asks for the order of rows. */
const POSITION = raw('t."auxesis position"');

/**
 * Gathers what the conditions of one statement need of the whole table: relations worked out once (WITH), and joins by
 * group. In all pieces the row that is looked at is `t`.
 */
export class SqlContext {
  readonly values: ColumnValues;
  private readonly relations: { readonly name: Sql; readonly body: Sql }[] = [];
  private readonly joins: Sql[] = [];
  private isOrdered = false;

  constructor(
    readonly table: LinkedTable,
    readonly settings: LinkedSettings,
  ) {
    this.values = new ColumnValues(settings.zone);
  }

  /** A column by the name that a rule gives. */
  column(field: FieldId): LinkedColumn | Problem {
    return this.table.columns.find(({ name }) => name === field) ?? missingField(field);
  }

  /** The position of a row in the order of the table's key, from 1. Throws a NoOrder where the table has no key. */
  position(): Sql {
    if (this.table.key.length === 0) throw new NoOrder();
    this.isOrdered = true;
    return POSITION;
  }

  /** All rows, as `t`, with their position where that was asked for before. */
  rows(): Sql {
    const name = tableName(this.table);
    if (!this.isOrdered) return sql`${name} t`;
    const key = join(this.table.key.map(identifier), ', ');
    return sql`(select *, row_number() over (order by ${key}) as "auxesis position" from ${name}) t`;
  }

  /** A relation that is worked out once. The body is made from the rows, with their position where that is asked for. */
  relation(body: (rows: Sql) => Sql): Sql {
    const name = raw(`s${this.relations.length + 1}`);
    this.relations.push({ name, body: body(this.rows()) });
    return name;
  }

  /** Joins a relation by its column `g`; rows without a partner stay, and have NULL. Gives the alias. */
  join(relation: Sql, key: Sql): Sql {
    const alias = raw(`j${this.joins.length + 1}`);
    this.joins.push(sql` left join ${relation} ${alias} on ${alias}.g = ${key}`);
    return alias;
  }

  /** A whole statement over the rows: `select` with what goes after the joins. */
  statement(select: Sql, rest: Sql): Sql {
    const relations = this.relations.map(({ name, body }) => sql`${name} as materialized (${body})`);
    const head = relations.length ? sql`with ${join(relations, ', ')} ` : sql``;
    return sql`${head}select ${select} from ${this.rows()}${this.joins.length ? join(this.joins, '') : sql``} ${rest}`;
  }
}
