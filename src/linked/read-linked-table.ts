import { linkedColumn, type LinkedTable } from '../core/rules/sql/linked-table';
import type { LinkedConnection } from './linked-connection';

/** Whether the role may change the table: then it is more than a link needs. */
export async function mayWrite(connection: LinkedConnection, name: string): Promise<boolean> {
  const [row] = await connection<{ may: boolean }[]>`
    select has_table_privilege(current_user, to_regclass(${name}), 'insert, update, delete, truncate') as may`;
  return row?.may ?? false;
}

/** How many rows a table has, as its last statistics say; 0 where there are none, as of a view. */
export async function estimateRows(connection: LinkedConnection, name: readonly string[]): Promise<number> {
  const [row] = await connection<{ rows: number }[]>`
    select greatest(reltuples, 0)::float8 as rows from pg_class join pg_namespace space on space.oid = relnamespace
    where nspname = ${name[0] ?? ''} and relname = ${name[1] ?? ''}`;
  return row?.rows ?? 0;
}

/** Why a table cannot be linked, in plain words. */
export class NotLinked extends Error {}

/** The first version of PostgreSQL that normalizes texts. */
const FIRST_VERSION = 130_000;

/**
 * What rules need to know of a table or view: its columns and their types, and what orders its rows: its primary key,
 * or the columns given. Columns of other types than numbers, texts, truth values, days and moments are left out. Throws
 * a NotLinked where there is no such table, or where the database cannot fold texts as rules do.
 */
export async function readLinkedTable(
  connection: LinkedConnection,
  name: string,
  key: readonly string[] = [],
): Promise<LinkedTable> {
  const [server] = await connection<{ version: number; encoding: string; hasIcu: boolean }[]>`
    select current_setting('server_version_num')::int as version, current_setting('server_encoding') as encoding,
      exists (select from pg_collation where collname = 'und-x-icu') as "hasIcu"`;
  if (!server || server.version < FIRST_VERSION) throw new NotLinked('the database must be PostgreSQL 13 or later');
  if (server.encoding !== 'UTF8' || !server.hasIcu)
    throw new NotLinked('the database must be in UTF-8 and have the collations of ICU, as texts are compared by them');
  const [table] = await connection<{ id: string; schema: string; name: string }[]>`
    select class.oid::text as id, nspname as schema, relname as name from pg_class class
    join pg_namespace space on space.oid = relnamespace
    where class.oid = to_regclass(${name}) and relkind in ('r', 'v', 'm', 'p', 'f')`;
  if (!table) throw new NotLinked(`there is no table or view "${name}" that this role can see`);
  const columns = await connection<{ name: string; type: string; isKey: boolean }[]>`
    select attname as name, case when base.typcategory in ('E', 'S') and base.typname <> 'bpchar' then 'text' else base.typname end as type,
      coalesce(attnum = any(indkey), false) as "isKey"
    from pg_attribute
    join pg_type own on own.oid = atttypid
    join pg_type base on base.oid = case when own.typtype = 'd' then own.typbasetype else own.oid end
    left join pg_index on indrelid = attrelid and indisprimary
    where attrelid = ${table.id}::oid and attnum > 0 and not attisdropped order by attnum`;
  const missing = key.find((wanted) => !columns.some((column) => column.name === wanted));
  if (missing !== undefined) throw new NotLinked(`there is no column "${missing}" in ${name}`);
  return {
    name: [table.schema, table.name],
    columns: columns.flatMap((column) => linkedColumn(column.name, column.type) ?? []),
    key: key.length ? key : columns.flatMap((column) => (column.isKey ? [column.name] : [])),
  };
}
