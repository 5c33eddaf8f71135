import Joi from 'joi';
import type { SheetId } from '../../../../../../../core/sheet/ids';
import { database } from '../../../../../../../server/database';
import { tellAccessChanged } from '../../../../../../../server/access/access-channel';
import { Refusal } from '../../../../../../../server/refusal';
import { endLink, revokeLink } from '../../../../../../../server/sql/link';
import { allow } from '../../../../../allow';
import { linkEnd } from '../../../../../link-end';
import { readBody } from '../../../../../read-body';
import { respond } from '../../../../../respond';

interface Context {
  readonly params: Promise<{ id: string; link: string }>;
}

const schema = Joi.object<{ endsAt: number | null }>({ endsAt: linkEnd.required() });

/** Gives the link another end. */
export function PATCH(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    const { endsAt } = await readBody(request, schema);
    await had(
      id,
      endLink(database(), id, { id: (await params).link, endsAt: endsAt === null ? null : new Date(endsAt) }),
    );
    return Response.json({ endsAt });
  });
}

/** Revokes the link: those who came by it lose access. */
export function DELETE(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id } = await allow(params, 'own');
    await had(id, revokeLink(database(), id, (await params).link));
    return new Response(null, { status: 204 });
  });
}

async function had(sheet: SheetId, changed: Promise<boolean>): Promise<void> {
  if (!(await changed)) throw new Refusal('bad-request', 'This link has been taken back already.');
  await tellAccessChanged(database(), { sheet });
}
