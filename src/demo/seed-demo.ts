import { createSheet } from '../server/sheets/create-sheet';
import { DEMO_OWNER, makeDemoOwner } from '../server/people/demo-owner';
import type { Sql } from '../server/database';
import { aeratorPlanner } from './aerator-planner';
import { catchmentTree } from './catchment-tree';
import { riverflyCheck } from './riverfly-check';
import { hoursPast, kitPast, stationPast } from './demo-past';
import { samplingKit } from './sampling-kit';
import { stationReadings } from './station-readings';
import { volunteerHours } from './volunteer-hours';
import { withPast } from './with-past';

/** Days from 1899-12-30 to 1970-01-01. */
const UNIX_EPOCH_SERIAL = 25_569;

/**
 * Seeds the demo's sheets, once in a database's life: a sheet that was removed stays removed. Returns whether it did.
 */
export async function seedDemo(sql: Sql, now: Date): Promise<boolean> {
  const [fresh] = await sql`insert into schema_migration (name) values ('demo') on conflict do nothing returning name`;
  if (!fresh) return false;
  await makeDemoOwner(sql);
  const nowMs = now.getTime();
  const today = Math.floor(nowMs / 86_400_000) + UNIX_EPOCH_SERIAL;
  const moment = { nowMs, today };
  // The main sheet was changed last, and so stands first on the desk.
  for (const sheet of [
    hoursPast(volunteerHours(), moment),
    withPast(aeratorPlanner(), nowMs),
    withPast(catchmentTree(), nowMs),
    withPast(riverflyCheck(), nowMs),
    kitPast(samplingKit(today), moment),
    stationPast(stationReadings({ today }), moment),
  ])
    await createSheet(sql, { ...sheet, owner: DEMO_OWNER.id });
  return true;
}
