import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Where the cookies of the demo's owner are kept for the tests: of one app, as several may be tested at once. */
const app = new URL(process.env.AUXESIS_URL ?? 'http://127.0.0.1:4380').port;
export const OWNER_STATE = join(tmpdir(), `auxesis-owner-${process.getuid?.() ?? 0}-${app}.json`);

/** The cookies of somebody who has none. */
export const NOBODY = { cookies: [], origins: [] };
