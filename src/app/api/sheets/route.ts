import Joi from 'joi';
import { exampleSheet, withRoom } from '../../../core/exchange/example-sheet';
import { EXAMPLES, type ExampleName } from '../../../core/rules/suggest/examples';
import { serialInZone } from '../../../core/values/dates/serial-in-zone';
import { keysOf } from '../../../core/values/typed-keys';
import { database } from '../../../server/database';
import { createSheet, emptySheet } from '../../../server/sheets/create-sheet';
import { requireRoomForSheet } from '../../../server/sheets/room-for-sheet';
import { listSheets } from '../../../server/sql/sheet';
import { sheetNameSchema } from '../../../protocol/sheet-name';
import { personRoute } from '../route-declarations';

export const dynamic = 'force-dynamic';

/** The sheets of the caller. */
export const GET = personRoute({}, async ({ person }) => Response.json(await listSheets(database(), person.id)));

const newSheet = Joi.object<{ name: string; example?: ExampleName }>({
  name: sheetNameSchema,
  example: Joi.valid(...keysOf(EXAMPLES)),
}).label('sheet');

/** Rows of a sheet that begins with an example, the blank ones included. */
const EXAMPLE_ROWS = 21;

/** A new sheet: empty, or with the table and rules of an example. */
export const POST = personRoute({ body: newSheet }, async ({ person: { id: owner }, body: { name, example } }) => {
  await requireRoomForSheet(database(), owner);
  const contents = example
    ? withRoom(exampleSheet(name, EXAMPLES[example], serialInZone(Date.now(), 'UTC')), EXAMPLE_ROWS)
    : emptySheet(name);
  return Response.json({ id: await createSheet(database(), { ...contents, owner }) }, { status: 201 });
});
