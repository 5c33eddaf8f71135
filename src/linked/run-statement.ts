import type { Sql } from 'sql-template-tag';
import type { LinkedConnection } from './linked-connection';

export type LinkedRow = Readonly<Record<string, unknown>>;

const query = (connection: LinkedConnection, { text, values }: Sql) => connection.unsafe(text, values as never[]);

/** The rows of a statement, so many at a time: the next ones are read once these were taken. */
export const readInBatches = (
  connection: LinkedConnection,
  statement: Sql,
  rows: number,
): AsyncIterable<readonly LinkedRow[]> => query(connection, statement).cursor(rows);

/** Runs a statement of a linked table: its text is made of templates, and its values go as parameters. */
export const runStatement = (connection: LinkedConnection, statement: Sql): Promise<readonly LinkedRow[]> =>
  query(connection, statement);
