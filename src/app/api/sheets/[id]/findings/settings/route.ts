import Joi from 'joi';
import { requirePermit } from '../../../../../../server/access/permits';
import type { Digest, FollowSettings } from '../../../../../../protocol/findings';
import { database } from '../../../../../../server/database';
import { findDigest, setDigest } from '../../../../../../server/sql/follow';
import { findHook, setHook } from '../../../../../../server/sql/webhook';
import { settings } from '../../../../../../server/settings';
import { webhookRefusal } from '../../../../../../server/findings/webhook-address';
import { sheetPersonRoute } from '../../../../route-declarations';

export const dynamic = 'force-dynamic';

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
export const GET = sheetPersonRoute({ permit: 'work' }, async ({ id: sheet, person: { id: person } }) => {
  const follow: FollowSettings = {
    digest: await findDigest(database(), { sheet, person }),
    hook: (await findHook(database(), sheet)) ?? null,
  };
  return Response.json(follow, { headers: { 'cache-control': 'no-store' } });
});

export const PATCH = sheetPersonRoute(
  { permit: 'work', body: schema },
  async ({ id: sheet, access, person: { id: person }, body: { digest, hook } }) => {
    // Where a sheet's findings go is its owner's to say.
    if (hook !== undefined) {
      requirePermit(access, 'own');
      await setHook(database(), sheet, hook);
    }
    if (digest !== undefined) await setDigest(database(), { sheet, person }, digest);
    return new Response(null, { status: 204 });
  },
);
