// The least that taking a change durably can cost: a plain HTTP server whose POST is one transaction, which locks and
// moves a head, adds a row with the body to a log, and notifies. It is the baseline that the app is held against, with
// the same driver and as many connections. PORT and DATABASE_URL as for the app.
import { createServer } from 'node:http';
import { json } from 'node:stream/consumers';
import postgres from 'postgres';

const sql = postgres(process.env.DATABASE_URL, { max: 8, onnotice: () => {} });
await sql`create table if not exists bare_head (id text primary key, head bigint not null default 0)`;
await sql`create table if not exists bare_log (
  id text not null, sequence bigint not null, made_at timestamptz not null default now(), body jsonb not null, primary key (id, sequence))`;

/** Takes a body into the log of a name; the sequence it got. */
const take = (id, body) =>
  sql.begin(async (tx) => {
    const [{ head }] = await tx`insert into bare_head (id, head) values (${id}, 1)
      on conflict (id) do update set head = bare_head.head + 1 returning head`;
    await Promise.all([
      tx`insert into bare_log (id, sequence, body) values (${id}, ${head}, ${JSON.stringify(body)}::text::jsonb)`,
      tx`select pg_notify('bare', ${`${id} ${head}`})`,
    ]);
    return Number(head);
  });

const server = createServer(async (request, response) => {
  const answer = (status, value) => {
    response.writeHead(status, { 'content-type': 'application/json' });
    response.end(JSON.stringify(value));
  };
  try {
    if (request.method !== 'POST') return answer(200, {});
    answer(200, { sequence: await take(request.url, await json(request)) });
  } catch (error) {
    answer(500, { refused: String(error) });
  }
});
server.listen(Number(process.env.PORT), '127.0.0.1');
process.once('SIGTERM', () => process.exit(0));
