import { database } from '../../../../server/database';
import { tellAccessChanged } from '../../../../server/access/access-channel';
import { deleteSheet, renameSheet } from '../../../../server/sql/sheet';
import { Refusal } from '../../../../server/refusal';
import { allow } from '../../allow';
import { readBody } from '../../read-body';
import { sheetName } from '../../sheet-name';
import { respond } from '../../respond';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

/** Gives the sheet another name. */
export function PATCH(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    const { name } = await readBody(request, sheetName);
    if (!(await renameSheet(database(), id, name))) throw new Refusal('no-sheet', 'There is no such sheet');
    return Response.json({ name });
  });
}

/** Removes the sheet with all that is in it. */
export function DELETE(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    if (!(await deleteSheet(database(), id))) throw new Refusal('no-sheet', 'There is no such sheet');
    await tellAccessChanged(database(), { sheet: id });
    return new Response(null, { status: 204 });
  });
}
