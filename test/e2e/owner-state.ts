import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where the cookies of the demo's owner are kept for the tests. */
export const OWNER_STATE = join(tmpdir(), `auxesis-owner-${process.getuid?.() ?? 0}.json`);

/** The cookies of somebody who has none. */
export const NOBODY = { cookies: [], origins: [] };
