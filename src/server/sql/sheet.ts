import { itemAt } from '../../core/values/item-at';
import { isMaker, type SheetRole } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import type { SheetSettings } from '../../core/sheet/sheet-settings';
import type { SheetSummary } from '../../protocol/sheet-summary';
import type { Queryable } from '../database';

export interface Contents {
  readonly fields: number;
  readonly rules: number;
  readonly parts: number;
  /** 0 where they were not to be counted. */
  readonly rows: number;
}

/** How much is in a sheet. */
export async function countContents(
  sql: Queryable,
  sheet: SheetId,
  { rows }: { readonly rows: boolean },
): Promise<Contents> {
  const counts = await sql<Contents[]>`select
    (select count(*)::int from sheet_field where sheet_id = ${sheet}) as fields,
    (select count(*)::int from sheet_rule where sheet_id = ${sheet}) as rules,
    (select count(*)::int from sheet_part where sheet_id = ${sheet}) as parts,
    case when ${rows} then (select count(*)::int from sheet_row where sheet_id = ${sheet}) else 0 end as rows`;
  return itemAt(counts, 0);
}

/** Removes a sheet with all that is in it; false where there is no such sheet. */
export async function deleteSheet(sql: Queryable, id: SheetId): Promise<boolean> {
  const { count } = await sql`delete from sheet where id = ${id}`;
  return count > 0;
}

export interface SheetHead {
  readonly id: SheetId;
  readonly name: string;
  readonly settings: SheetSettings;
  /** Sequence of the last change. */
  readonly head: number;
  /** When it was made, milliseconds of the Unix epoch. */
  readonly createdAt: number;
}

/** A sheet's head, or undefined where there is no such sheet. */
export async function findSheet(sql: Queryable, id: SheetId): Promise<SheetHead | undefined> {
  const [row] = await sql<
    { id: string; name: string; settings: SheetSettings; head: string; created_at: Date }[]
  >`select id, name, settings, head, created_at from sheet where id = ${id}`;
  return (
    row && {
      id: row.id,
      name: row.name,
      settings: row.settings,
      head: Number(row.head),
      createdAt: row.created_at.getTime(),
    }
  );
}

interface InsertedSheet {
  readonly id: SheetId;
  readonly name: string;
  readonly settings: SheetSettings;
  /** Milliseconds of the Unix epoch. */
  readonly createdAt: number;
}

/** Makes a sheet, still without fields and rows. */
export async function insertSheet(sql: Queryable, { id, name, settings, createdAt }: InsertedSheet): Promise<void> {
  await sql`insert into sheet (id, name, settings, created_at) values (${id}, ${name}, ${JSON.stringify(settings)}::text::jsonb, ${new Date(createdAt)})`;
}

/** The sheets that a person has a part in, the last changed first, with how much is in each. */
export async function listSheets(sql: Queryable, person: string): Promise<SheetSummary[]> {
  const rows = await sql<
    {
      id: string;
      name: string;
      changed_at: Date;
      records: number;
      rules: number;
      role: SheetRole;
      owner: string | null;
    }[]
  >`
    select sheet.id, sheet.name, sheet.changed_at, member.role,
      (select person.name from sheet_member owning join person on person.id = owning.person_id
        where owning.sheet_id = sheet.id and owning.role = 'owner' order by owning.since limit 1) as owner,
      (select count(*)::int from sheet_row where sheet_id = sheet.id and role = 'record' and cells <> '{}') as records,
      (select count(*)::int from sheet_rule where sheet_id = sheet.id) as rules
    from sheet join sheet_member member on member.sheet_id = sheet.id and member.person_id = ${person}
    order by sheet.changed_at desc, sheet.id`;
  return rows.map(({ changed_at, rules, ...rest }) => ({
    ...rest,
    changedAt: changed_at.toISOString(),
    rules: isMaker(rest.role) ? rules : null,
  }));
}

/**
 * Takes the sheet for the length of a transaction, so that changes come one after another; the sequence of the last
 * one.
 */
export async function lockHead(sql: Queryable, id: SheetId): Promise<number | undefined> {
  const [row] = await sql<{ head: string }[]>`select head from sheet where id = ${id} for update`;
  return row && Number(row.head);
}

/** Moves the head on after a change. */
export async function moveHead(sql: Queryable, id: SheetId, head: number): Promise<void> {
  await sql`update sheet set head = ${head}, changed_at = now() where id = ${id}`;
}

/** Says when a sheet was changed last, for one that is made with its past. */
export async function dateSheet(sql: Queryable, id: SheetId, changedAt: Date): Promise<void> {
  await sql`update sheet set changed_at = ${changedAt} where id = ${id}`;
}

/** Gives a sheet another name; false where there is no such sheet. */
export async function renameSheet(sql: Queryable, id: SheetId, name: string): Promise<boolean> {
  const { count } = await sql`update sheet set name = ${name}, changed_at = now() where id = ${id}`;
  return count > 0;
}
