import { readiness } from '../../../server/readiness';
import { openRoute } from '../route-declarations';

export const dynamic = 'force-dynamic';

/** Whether the server can work: 200 where all is there, else 503 with what is not. */
export const GET = openRoute({}, async () => {
  const checks = await readiness();
  const isReady = Object.values(checks).every(Boolean);
  return Response.json({ ready: isReady, ...checks }, { status: isReady ? 200 : 503 });
});
