import type { Look } from '../../core/looks/look';
import { kindOf } from '../../core/rules/kinds/registry';
import type { Rule } from '../../core/rules/shape/rule';
import { isMaker } from '../../core/sharing/role';
import type { LookPart } from '../../core/sheet/sheet-part';
import type { SheetId } from '../../core/sheet/ids';
import { MOST_UNSEEN, type DeskSheetSummary, type SheetSummary, type SummedRule } from '../../protocol/sheet-summary';
import type { Queryable } from '../database';
import { namesOfLinked } from './linked-table';
import { listSheets } from './sheet';

/** Rules of a sheet that are shown on the desk. */
const RULES_SHOWN = 6;
/** Looks of one rule that are shown. */
const LOOKS_SHOWN = 4;

/** The sheets that a person has a part in, as the desk shows them: for makers with their legend and what is new. */
export async function listDesk(sql: Queryable, person: string): Promise<DeskSheetSummary[]> {
  const sheets = await listSheets(sql, person);
  const ids = sheets.filter(({ role }) => isMaker(role)).map(({ id }) => id);
  const [rules, looks, unseen, linked] = await Promise.all([
    readRules(sql, ids),
    readLooks(sql, ids),
    countUnseen(sql, ids, person),
    namesOfLinked(sql, ids),
  ]);
  return sheets.map((sheet): DeskSheetSummary => ({ ...sheet, ...summed(sheet, { rules, looks, unseen, linked }) }));
}

interface Found {
  readonly rules: ReadonlyMap<SheetId, readonly SummedRule[]>;
  readonly looks: ReadonlyMap<SheetId, readonly LookPart[]>;
  readonly unseen: ReadonlyMap<SheetId, number>;
  readonly linked: ReadonlyMap<SheetId, string>;
}

const summed = ({ id }: SheetSummary, { rules, looks, unseen, linked }: Found) => ({
  legend: rules.get(id) ?? [],
  looks: looks.get(id) ?? [],
  unseen: unseen.get(id) ?? 0,
  linked: linked.get(id) ?? null,
});

/** The first rules of each sheet, with how many cells they paint, where a finding has told that. */
async function readRules(sql: Queryable, sheets: readonly SheetId[]): Promise<Found['rules']> {
  const rows = await sql<{ sheet_id: SheetId; rule: Rule; painted: number | null }[]>`
    select sheet_id, rule, (select painted from finding
        where finding.sheet_id = first.sheet_id and finding.rule_id = first.id order by finding.id desc limit 1) as painted
    from (select sheet_id, id, rule, row_number() over (partition by sheet_id order by key, id) as place
      from sheet_rule where sheet_id = any(${sheets})) first
    where place <= ${RULES_SHOWN} order by sheet_id, place`;
  return grouped(rows, ({ rule, painted }) => ({ name: rule.name, on: rule.on, looks: looksOf(rule), painted }));
}

const looksOf = ({ when, look }: Rule): readonly Look[] =>
  (kindOf(when).outcomeLooks(when) ?? [look ?? null]).filter((each) => each !== null).slice(0, LOOKS_SHOWN);

/** The looks that each sheet has saved itself. */
async function readLooks(sql: Queryable, sheets: readonly SheetId[]): Promise<Found['looks']> {
  const rows = await sql<{ sheet_id: SheetId; part: LookPart }[]>`
    select sheet_id, part from sheet_part where sheet_id = any(${sheets}) and part ->> 'kind' = 'look'`;
  return grouped(rows, ({ part }) => part);
}

/** How many findings of each sheet a person has not seen, of rules that they have not muted. */
async function countUnseen(sql: Queryable, sheets: readonly SheetId[], person: string): Promise<Found['unseen']> {
  const rows = await sql<{ sheet_id: SheetId; count: number }[]>`
    select sheet.id as sheet_id, fresh.count from sheet, lateral (
      select count(*)::int from (select from finding
        where finding.sheet_id = sheet.id
          and finding.id > coalesce((select seen_to from finding_follow follow
            where follow.sheet_id = sheet.id and follow.person_id = ${person}), 0)
          and not exists (select from finding_seen seen
            where seen.sheet_id = finding.sheet_id and seen.finding_id = finding.id and seen.person_id = ${person})
          and not exists (select from finding_mute mute
            where mute.sheet_id = finding.sheet_id and mute.person_id = ${person} and mute.rule_id = finding.rule_id)
        limit ${MOST_UNSEEN}) unseen
    ) fresh where sheet.id = any(${sheets})`;
  return new Map(rows.map(({ sheet_id, count }) => [sheet_id, count]));
}

function grouped<R extends { readonly sheet_id: SheetId }, T>(
  rows: readonly R[],
  take: (row: R) => T,
): ReadonlyMap<SheetId, readonly T[]> {
  const found = new Map<SheetId, T[]>();
  for (const row of rows) found.set(row.sheet_id, [...(found.get(row.sheet_id) ?? []), take(row)]);
  return found;
}
