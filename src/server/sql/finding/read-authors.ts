import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

/** Who made the changes after a sequence up to another: `person ID` or `visitor ID`. */
export async function readAuthors(
  sql: Queryable,
  sheet: SheetId,
  { after, to }: { readonly after: number; readonly to: number },
): Promise<ReadonlyMap<number, string>> {
  const rows = await sql<{ sequence: string; author: string }[]>`
    select sequence, author from sheet_change where sheet_id = ${sheet} and sequence > ${after} and sequence <= ${to}`;
  return new Map(rows.map(({ sequence, author }) => [Number(sequence), author]));
}
