import Joi from 'joi';
import { database } from '../../../server/database';
import { makeLinkedSheet } from '../../../server/linked/make-linked-sheet';
import { requireRoomForSheet } from '../../../server/sheets/room-for-sheet';
import { sheetNameSchema } from '../../../protocol/sheet-name';
import { personRoute } from '../route-declarations';

export const dynamic = 'force-dynamic';

const schema = Joi.object<{ name: string; address: string; table: string; key: string[] }>({
  name: sheetNameSchema,
  address: Joi.string().trim().max(1000).required(),
  table: Joi.string().trim().max(200).required(),
  key: Joi.array().items(Joi.string().trim().min(1).max(63)).max(8).default([]),
}).label('table');

/** A sheet whose records stay in a table of another database. */
export const POST = personRoute({ body: schema }, async ({ person: { id: owner }, body }) => {
  await requireRoomForSheet(database(), owner);
  return Response.json({ id: await makeLinkedSheet(owner, body) }, { status: 201 });
});
