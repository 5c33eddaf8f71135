import { CLIENT_HEADER } from '../../../server/front/front-door';
import { metrics } from '../../../server/metrics';
import { Refusal } from '../../../server/refusal';
import { respond } from '../respond';

export const dynamic = 'force-dynamic';

const LOOPBACK = /^(127\.|::1$|::ffff:127\.)/;

/** What this process has counted and measured, for a collector on the same computer. */
export function GET(request: Request): Promise<Response> {
  return respond(async () => {
    if (!LOOPBACK.test(request.headers.get(CLIENT_HEADER) ?? '')) throw new Refusal('not-allowed', 'Metrics are read from the computer itself.');
    const { registry } = metrics();
    return new Response(await registry.metrics(), { headers: { 'content-type': registry.contentType } });
  });
}
