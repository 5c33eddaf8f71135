import { CLIENT_HEADER } from '../../../server/front/front-door';
import { hostName } from '../../../server/front/origin';
import { metrics } from '../../../server/metrics';
import { Refusal } from '../../../server/refusal';
import { LOCAL } from '../../../server/settings';
import { openRoute } from '../route-declarations';
import { refusalText } from '../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;
/** A proxy on this computer comes from a loopback address as well, but asks by the name that others use. */
const isLocal = ({ headers }: Request): boolean =>
  LOOPBACK.test(headers.get(CLIENT_HEADER) ?? '') && LOCAL.includes(hostName(headers.get('host') ?? undefined) ?? '');

/** The metrics of this process, for a collector on the same computer. */
export const GET = openRoute({}, async ({ request }) => {
  if (!isLocal(request)) throw new Refusal('not-allowed', refusalText('metricsReadFromComputer'));
  const { registry } = metrics();
  return new Response(await registry.metrics(), { headers: { 'content-type': registry.contentType } });
});
