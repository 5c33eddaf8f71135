// Prints how PostgreSQL does the statements of ordinary work in the database that DATABASE_URL names, as a table in
// Markdown: the twenty that are used most. Sheets are laid into eight parts first, among very many others.
import postgres from 'postgres';
import { beginSession } from '../../src/server/people/session';
import { DEMO_OWNER } from '../../src/server/people/demo-owner';
import type { Sql } from '../../src/server/database';
import { fillSheets } from './growth.mjs';
import { makeOrdinarySheet, ordinaryWork } from './ordinary-work';

const SHEETS = 10_000;
const TIMES = 5;
const MOST = 20;

interface Used {
  readonly statement: string;
  readonly values: readonly unknown[];
  times: number;
}

interface Node {
  readonly 'Node Type': string;
  readonly 'Index Name'?: string;
  readonly 'Relation Name'?: string;
  readonly 'Function Name'?: string;
  readonly Plans?: readonly Node[];
}

const used = new Map<string, Used>();
const note = (_: number, text: string, values: readonly unknown[]): void => {
  const statement = text.replaceAll(/\s+/g, ' ').trim();
  const known = used.get(statement);
  if (known) known.times++;
  else used.set(statement, { statement, values, times: 1 });
};

/** The ways by which a plan gets at tables, each once. */
function waysOf({ Plans = [], ...node }: Node): string[] {
  const whole = node['Node Type'] === 'Seq Scan' ? `all of ${node['Relation Name']}` : undefined;
  const own = node['Index Name'] ?? whole ?? node['Function Name'];
  return [...new Set([...(own ? [own.replace(/_8_\d(_|$)/, '$1')] : []), ...Plans.flatMap(waysOf)])];
}

/** Owners for the sheets, who are signed in, and a rule and a part in each. */
async function fillPeople(into: Sql): Promise<void> {
  const all = into`generate_series(1, ${SHEETS}::int) n`;
  await into`insert into person (id, email, name) select 'p' || n, n || '@wrenfold.example', 'Owner' from ${all}`;
  await into`insert into person_session (token_hash, person_id, ends_at)
    select sha256(n::text::bytea), 'p' || n, now() + interval '1 day' from ${all}`;
  await into`insert into sheet_member (sheet_id, person_id, role) select 'full' || n, 'p' || n, 'owner' from ${all}`;
  await into`insert into sheet_rule (sheet_id, id, key, rule) select 'full' || n, 'r', 'a0', '{}' from ${all}`;
  await into`insert into sheet_part (sheet_id, id, part) select 'full' || n, 'p', '{}' from ${all}`;
  await into`insert into packed_sheet (sheet_id, sequence, packed) select 'full' || n, 1, '' from ${all}`;
}

const sql = postgres(process.env.DATABASE_URL!, { max: 4, onnotice: () => {}, debug: note }) as unknown as Sql;
await fillSheets(sql, SHEETS);
await fillPeople(sql);
await sql`select partition_sheets(8)`;
const sheet = await makeOrdinarySheet(sql, DEMO_OWNER.id);
const { session } = await beginSession(sql, DEMO_OWNER.id, {
  client: '127.0.0.1',
  agent: 'plans',
  session: undefined,
  device: undefined,
});
await sql`analyze`;
await ordinaryWork(sql, { sheet, person: DEMO_OWNER.id, session });
used.clear();
for (let times = 0; times < TIMES; times++) await ordinaryWork(sql, { sheet, person: DEMO_OWNER.id, session });
const most = [...used.values()]
  .filter(({ statement }) => /^(select|insert|update|delete|with)/.test(statement))
  .toSorted((a, b) => b.times - a.times)
  .slice(0, MOST);
console.log('| statement | times | by |\n| --- | --- | --- |');
for (const { statement, values, times } of most) {
  const [row] = (await sql.unsafe(`explain (format json) ${statement}`, values as never[])) as unknown as [
    { 'QUERY PLAN': readonly [{ readonly Plan: Node }] },
  ];
  const shown = statement.length > 100 ? `${statement.slice(0, 100)}…` : statement;
  console.log(`| \`${shown}\` | ${times / TIMES} | ${waysOf(row['QUERY PLAN'][0].Plan).join(', ')} |`);
}
await sql.end();
