import { openRoute } from '../route-declarations';

export const dynamic = 'force-dynamic';

/** Answers while the process is alive, even if what it needs is not there: see /api/ready. */
export const GET = openRoute({}, async () => Response.json({ alive: true }));
