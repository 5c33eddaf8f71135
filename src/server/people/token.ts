import { createHash, randomBytes } from 'node:crypto';

/** An unguessable token: 256 random bits, in letters, digits, - and _. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** The stored form of a token: reading the database does not let anybody use it. */
export const hashToken = (token: string): Buffer => createHash('sha256').update(token).digest();
