import type { Sql } from 'sql-template-tag';
import type { LinkedConnection } from './linked-connection';

export type LinkedRow = Readonly<Record<string, unknown>>;

/** Runs a statement of a linked table: its text is made of templates, and its values go as parameters. */
export const runStatement = (connection: LinkedConnection, { text, values }: Sql): Promise<readonly LinkedRow[]> =>
  connection.unsafe(text, values as never[]);
