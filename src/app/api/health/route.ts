export const dynamic = 'force-dynamic';

/** Answers as long as the process is alive, whatever it needs is there or not: see /api/ready. */
export const GET = (): Response => Response.json({ alive: true });
