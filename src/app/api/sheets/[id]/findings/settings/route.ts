import Joi from 'joi';
import type { Digest, FollowSettings } from '../../../../../../protocol/findings';
import { database } from '../../../../../../server/database';
import { findDigest, setDigest } from '../../../../../../server/sql/finding/follow';
import { findHook, setHook } from '../../../../../../server/sql/finding/hooks';
import { allow, requirePerson } from '../../../../allow';
import { readBody } from '../../../../read-body';
import { respond } from '../../../../respond';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

/** Only this computer is posted to: an address elsewhere could be anybody's. */
const localUrl = Joi.string()
  .max(300)
  .pattern(/^http:\/\/(127\.0\.0\.1|localhost|\[::1\])(:\d{1,5})?(\/[^\s]*)?$/)
  .messages({ 'string.pattern.base': 'The address must be on this computer, such as http://127.0.0.1:9000/findings.' });

const schema = Joi.object<{ digest?: Digest; hook?: string | null }>({ digest: Joi.valid('none', 'hour', 'day'), hook: localUrl.allow(null) }).or(
  'digest',
  'hook',
);

/** How the sheet is followed: one's own digest, and its local address. */
export function GET(_: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id: sheet } = await allow(params, 'work');
    const { id: person } = await requirePerson();
    const settings: FollowSettings = { digest: await findDigest(database(), { sheet, person }), hook: (await findHook(database(), sheet)) ?? null };
    return Response.json(settings, { headers: { 'cache-control': 'no-store' } });
  });
}

export function PATCH(request: Request, { params }: Context): Promise<Response> {
  return respond(async () => {
    const { id: sheet, access } = await allow(params, 'work');
    const { id: person } = await requirePerson();
    const { digest, hook } = await readBody(request, schema);
    // Where a sheet's findings go is its owner's to say.
    if (hook !== undefined) {
      if (access.role !== 'owner') await allow(params, 'own');
      await setHook(database(), sheet, hook);
    }
    if (digest !== undefined) await setDigest(database(), { sheet, person }, digest);
    return new Response(null, { status: 204 });
  });
}
