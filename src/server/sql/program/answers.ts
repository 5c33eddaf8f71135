import type { Queryable } from '../../database';
import type { FoundProgram } from './find-program';

type Asker = Pick<FoundProgram, 'sheet' | 'id'>;

/** How long answers are kept. */
const KEPT = '24 hours';

/** What a request with a key was answered with, and the hash of what it asked; undefined where there was none. */
export async function findAnswer(
  sql: Queryable,
  { sheet, id }: Asker,
  key: string,
): Promise<{ readonly asked: Buffer; readonly answer: object } | undefined> {
  const [row] = await sql<{ asked: Buffer; answer: object }[]>`
    select asked, answer from program_answer where sheet_id = ${sheet} and program_id = ${id} and key = ${key}`;
  return row;
}

/** Keeps an answer, and drops those that are old. */
export async function keepAnswer(
  sql: Queryable,
  { sheet, id }: Asker,
  { key, asked, answer }: { readonly key: string; readonly asked: Buffer; readonly answer: object },
): Promise<void> {
  await sql`delete from program_answer where sheet_id = ${sheet} and program_id = ${id} and at < now() - ${KEPT}::interval`;
  await sql`insert into program_answer (sheet_id, program_id, key, asked, answer)
    values (${sheet}, ${id}, ${key}, ${asked}, ${JSON.stringify(answer)}::text::json) on conflict do nothing`;
}
