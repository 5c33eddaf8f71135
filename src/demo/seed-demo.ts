import { createSheet } from '../server/sheets/create-sheet';
import type { Sql } from '../server/database';
import { stationReadings } from './station-readings';

/** Days from 1899-12-30 to 1970-01-01. */
const UNIX_EPOCH_SERIAL = 25_569;

/** Puts the demo's sheets in, once in a database's life: a sheet that was removed stays removed. Returns whether it did. */
export async function seedDemo(sql: Sql, now: Date): Promise<boolean> {
  const [fresh] = await sql`insert into schema_migration (name) values ('demo') on conflict do nothing returning name`;
  if (!fresh) return false;
  await createSheet(sql, stationReadings({ today: Math.floor(now.getTime() / 86_400_000) + UNIX_EPOCH_SERIAL }));
  return true;
}
