import Joi from 'joi';
import { isOwner } from '../../../../../../core/sharing/role';
import type { Digest, FollowSettings } from '../../../../../../protocol/findings';
import { database } from '../../../../../../server/database';
import { findDigest, setDigest } from '../../../../../../server/sql/follow';
import { findHook, setHook } from '../../../../../../server/sql/webhook';
import { settings } from '../../../../../../server/settings';
import { webhookRefusal } from '../../../../../../server/findings/webhook-address';
import { allow, requirePerson } from '../../../../allow';
import { readBody } from '../../../../read-body';
import { respond } from '../../../../respond';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

const webhookUrl = Joi.string()
  .max(300)
  .custom((url: string, helpers) => {
    const because = webhookRefusal(url, settings());
    return because === null ? url : helpers.message({ custom: because });
  });

const schema = Joi.object<{ digest?: Digest; hook?: string | null }>({
  digest: Joi.valid('none', 'hour', 'day'),
  hook: webhookUrl.allow(null),
}).or('digest', 'hook');

/** How the sheet is followed: the caller's digest, and the sheet's webhook. */
export function GET(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id: sheet } = await allow(params, 'work');
    const { id: person } = await requirePerson();
    const follow: FollowSettings = {
      digest: await findDigest(database(), { sheet, person }),
      hook: (await findHook(database(), sheet)) ?? null,
    };
    return Response.json(follow, { headers: { 'cache-control': 'no-store' } });
  });
}

export function PATCH(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id: sheet, access } = await allow(params, 'work');
    const { id: person } = await requirePerson();
    const { digest, hook } = await readBody(request, schema);
    // Where a sheet's findings go is its owner's to say.
    if (hook !== undefined) {
      if (!isOwner(access.role)) await allow(params, 'own');
      await setHook(database(), sheet, hook);
    }
    if (digest !== undefined) await setDigest(database(), { sheet, person }, digest);
    return new Response(null, { status: 204 });
  });
}
