import { database } from '../../../server/database';
import { createSheet, emptySheet } from '../../../server/sheets/create-sheet';
import { requireRoomForSheet } from '../../../server/sheets/room-for-sheet';
import { listSheets } from '../../../server/sql/sheet';
import { sheetName } from '../sheet-name';
import { personRoute } from '../route-declarations';

export const dynamic = 'force-dynamic';

/** The sheets of the caller. */
export const GET = personRoute({}, async ({ person }) => Response.json(await listSheets(database(), person.id)));

export const POST = personRoute({ body: sheetName }, async ({ person: { id: owner }, body: { name } }) => {
  await requireRoomForSheet(database(), owner);
  return Response.json({ id: await createSheet(database(), { ...emptySheet(name), owner }) }, { status: 201 });
});
