import { database } from '../../../server/database';
import { createSheet, emptySheet } from '../../../server/sheets/create-sheet';
import { requireRoomForSheet } from '../../../server/sheets/room-for-sheet';
import { listSheets } from '../../../server/sql/sheet';
import { requirePerson } from '../allow';
import { readBody } from '../read-body';
import { sheetName } from '../sheet-name';
import { respond } from '../respond';

export const dynamic = 'force-dynamic';

export function GET(): Promise<Response> {
  return respond(async () => Response.json(await listSheets(database(), (await requirePerson()).id)));
}

export function POST(request: Request): Promise<Response> {
  return respond(async () => {
    const { id: owner } = await requirePerson();
    const { name } = await readBody(request, sheetName);
    await requireRoomForSheet(database(), owner);
    return Response.json({ id: await createSheet(database(), { ...emptySheet(name), owner }) }, { status: 201 });
  });
}
