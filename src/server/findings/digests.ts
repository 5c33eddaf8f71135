import { MAKER_ROLES } from '../../core/sharing/role';
import { lastItem } from '../../core/values/item-at';
import type { NewFinding } from '../../protocol/findings';
import { database, type Sql } from '../database';
import { insertMail } from '../sql/mail';
import { findingLine } from './finding-line';
import { log } from '../log';

/** How often it is looked whether a digest is due. */
const LOOK_MS = 60_000;
const MAX_LINES = 50;

/** Writes digests from now on, each when it is due. */
export function startDigests(): void {
  setInterval(
    () =>
      void writeDigests(database()).catch((error: unknown) => log().error({ err: error }, 'writing digests failed')),
    LOOK_MS,
  ).unref();
}

interface Due {
  readonly sheet: string;
  readonly name: string;
  readonly person: string;
  readonly email: string;
  readonly digest_to: string;
}

/** Writes the digests that are due, into the outbox of who asked for them: nothing where nothing has happened. */
export async function writeDigests(sql: Sql): Promise<number> {
  const due = await sql<Due[]>`
    update finding_follow follow set digest_at = now()
    from sheet, person, sheet_member member
    where sheet.id = follow.sheet_id and person.id = follow.person_id
      and member.sheet_id = follow.sheet_id and member.person_id = follow.person_id and member.role = any(${MAKER_ROLES})
      and digest <> 'none' and digest_at <= now() - case digest when 'hour' then interval '1 hour' else interval '1 day' end
    returning follow.sheet_id as sheet, sheet.name, person.id as person, person.email, follow.digest_to`;
  let written = 0;
  for (const { sheet, name, person, email, digest_to } of due) {
    const findings = await sql<(NewFinding & { id: string })[]>`
      select id, rule_name as "ruleName", outcome, way, record, label, before, after from finding
      where sheet_id = ${sheet} and id > ${digest_to} and not exists (
        select from finding_mute mute where mute.sheet_id = finding.sheet_id and mute.person_id = ${person} and mute.rule_id = finding.rule_id)
      order by id`;
    if (findings.length === 0) continue;
    const lines = findings.slice(-MAX_LINES).map(findingLine);
    if (findings.length > MAX_LINES) lines.unshift(`${findings.length - MAX_LINES} earlier ones are in the feed.`);
    await insertMail(sql, {
      sender: person,
      recipient: email,
      subject: `What entered and left the rules of ${name}`,
      body: lines.join('\n'),
    });
    await sql`update finding_follow set digest_to = ${lastItem(findings).id} where sheet_id = ${sheet} and person_id = ${person}`;
    written++;
  }
  return written;
}
