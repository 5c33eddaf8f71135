import { isMaker, type SheetRole } from '../../../core/sharing/role';
import type { SheetSummary } from '../../../protocol/sheet-summary';
import type { Queryable } from '../../database';

/** The sheets that a person has a part in, the last changed first, with how much is in each. */
export async function listSheets(sql: Queryable, person: string): Promise<SheetSummary[]> {
  const rows = await sql<{ id: string; name: string; changed_at: Date; records: number; rules: number; role: SheetRole; owner: string | null }[]>`
    select sheet.id, sheet.name, sheet.changed_at, member.role,
      (select person.name from sheet_member owning join person on person.id = owning.person_id
        where owning.sheet_id = sheet.id and owning.role = 'owner' order by owning.since limit 1) as owner,
      (select count(*)::int from sheet_row where sheet_id = sheet.id and role = 'record') as records,
      (select count(*)::int from sheet_rule where sheet_id = sheet.id) as rules
    from sheet join sheet_member member on member.sheet_id = sheet.id and member.person_id = ${person}
    order by sheet.changed_at desc, sheet.id`;
  return rows.map(({ changed_at, rules, ...rest }) => ({ ...rest, changedAt: changed_at.toISOString(), rules: isMaker(rest.role) ? rules : null }));
}
