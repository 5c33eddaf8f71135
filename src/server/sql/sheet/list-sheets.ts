import type { SheetSummary } from '../../../protocol/sheet-summary';
import type { Queryable } from '../../database';

/** All sheets, the last changed first, with how much is in each. */
export async function listSheets(sql: Queryable): Promise<SheetSummary[]> {
  const rows = await sql<{ id: string; name: string; changed_at: Date; records: number; rules: number }[]>`
    select sheet.id, sheet.name, sheet.changed_at,
      (select count(*)::int from sheet_row where sheet_id = sheet.id and role = 'record') as records,
      (select count(*)::int from sheet_rule where sheet_id = sheet.id) as rules
    from sheet order by sheet.changed_at desc, sheet.id`;
  return rows.map(({ changed_at, ...rest }) => ({ ...rest, changedAt: changed_at.toISOString() }));
}
