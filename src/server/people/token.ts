import { createHash, randomBytes } from 'node:crypto';

/** An unguessable token: 256 random bits, in letters, digits, - and _. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** What is kept of a token: whoever reads the database cannot use it. */
export const hashToken = (token: string): Buffer => createHash('sha256').update(token).digest();
