import type { Change, Operation } from '../../../core/sheet/change';
import type { SheetId } from '../../../core/sheet/ids';
import type { Queryable } from '../../database';

export interface AppendedChange {
  readonly sheet: SheetId;
  readonly sequence: number;
  readonly author: string;
  /** The last change that its author had seen. */
  readonly seen?: number | undefined;
  readonly change: Change;
  readonly inverse: readonly Operation[];
}

/** Adds a change to the log. */
export async function appendChange(sql: Queryable, { sheet, sequence, author, seen, change, inverse }: AppendedChange): Promise<void> {
  await sql`insert into sheet_change (sheet_id, sequence, change_id, author, seen, operations, inverse)
    values (${sheet}, ${sequence}, ${change.id}, ${author}, ${seen ?? null}, ${JSON.stringify(change.operations)}::text::json, ${JSON.stringify(inverse)}::text::json)`;
}
