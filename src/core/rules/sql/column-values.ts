import sql, { raw, type Sql } from 'sql-template-tag';
import type { FoldOptions } from '../../values/fold-text';
import { foldedText, isBlankText } from './folded-text';
import { columnOf, type LinkedColumn } from './linked-table';

const SECONDS_A_DAY = 86_400;

/** The values of linked columns in SQL, as rules see them: NULL where the cell has none of the sort that is asked for. */
export class ColumnValues {
  constructor(
    /** The time zone in which instants are read. */
    private readonly zone: string,
  ) {}

  /** Whether a cell is blank: NULL, or a text of nothing but white space. */
  isBlank(column: LinkedColumn): Sql {
    const held = columnOf(column.name);
    return column.type === 'text'
      ? sql`(${held} is null or ${isBlankText(sql`${held}::text`)})`
      : sql`(${held} is null)`;
  }

  /** Whether a cell holds what is no number: not a number, or an infinity. */
  isError(column: LinkedColumn): Sql {
    const held = columnOf(column.name);
    if (column.type === 'number') return sql`coalesce(abs(${held}::float8) >= 'Infinity'::float8, false)`;
    return column.type === 'day' || column.type === 'moment'
      ? sql`coalesce(not isfinite(${held}), false)`
      : raw('false');
  }

  /** The number of a cell as a double. */
  number(column: LinkedColumn): Sql | null {
    const held = columnOf(column.name);
    if (column.type === 'integer') return sql`${held}::float8`;
    if (column.type !== 'number') return null;
    // Not-a-number is greater than all numbers there.
    return sql`(case when abs(${held}::float8) < 'Infinity'::float8 then ${held}::float8 end)`;
  }

  /** The day of a cell as a serial date, with its time of day. */
  serial(column: LinkedColumn): Sql | null {
    const held = columnOf(column.name);
    if (column.type === 'day') return sql`(case when isfinite(${held}) then (${held} - date '1899-12-30')::float8 end)`;
    if (column.type !== 'moment') return null;
    const local = column.isZoned ? sql`(${held} at time zone ${this.zone}::text)` : held;
    return sql`(case when isfinite(${held}) then (${local}::date - date '1899-12-30')::float8
      + extract(epoch from ${local}::time)::float8 / ${raw(String(SECONDS_A_DAY))}::float8 end)`;
  }

  /** The number of a cell, or its serial date: what statistics run over. */
  amount(column: LinkedColumn): Sql | null {
    return this.number(column) ?? this.serial(column);
  }

  logical(column: LinkedColumn): Sql | null {
    return column.type === 'logical' ? columnOf(column.name) : null;
  }

  /** The text that a cell shows; null where it cannot be said in SQL exactly. */
  shown(column: LinkedColumn): Sql | null {
    const held = columnOf(column.name);
    switch (column.type) {
      case 'text':
        return sql`(case when not ${isBlankText(sql`${held}::text`)} then ${held}::text end)`;
      case 'integer':
        return sql`${held}::text`;
      case 'logical':
        return sql`upper(${held}::text)`;
      case 'day':
        return sql`(case when isfinite(${held}) then to_char(${held}, 'YYYY-MM-DD') end)`;
      case 'number':
      case 'moment':
        return null;
    }
  }

  /** The same folded. */
  folded(column: LinkedColumn, options: FoldOptions = {}): Sql | null {
    const shown = column.type === 'text' ? sql`${columnOf(column.name)}::text` : this.shown(column);
    return shown && foldedText(shown, options);
  }

  /** What makes two cells the same content for rules, as a text: of numbers the double, of texts the folded form. */
  content(column: LinkedColumn, options: FoldOptions = {}): Sql {
    const amount = this.amount(column);
    const kind = raw(
      `'${column.type === 'day' || column.type === 'moment' ? 'date' : amount ? 'number' : column.type}'`,
    );
    // Minus zero is zero.
    const text = amount ? sql`(${amount} + 0)::text` : this.folded(column, options);
    return sql`(${kind} || ' ' || ${text})`;
  }
}
