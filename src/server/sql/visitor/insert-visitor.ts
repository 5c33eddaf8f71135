import type { Own } from '../../../core/sharing/role';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface NewVisitor {
  readonly id: string;
  readonly link: string;
  readonly tokenHash: Buffer;
  readonly name: string;
  readonly own: Own;
}

/** Remembers somebody who came by a link. */
export async function insertVisitor(sql: Queryable, sheet: SheetId, { id, link, tokenHash, name, own }: NewVisitor): Promise<void> {
  await sql`insert into sheet_visitor (sheet_id, id, link_id, token_hash, name, own_fields, own_rows)
    values (${sheet}, ${id}, ${link}, ${tokenHash}, ${name}, ${own.fields as string[] | null}, ${own.rows as string[] | null})`;
}
