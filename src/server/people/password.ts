import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto';
import { promisify } from 'node:util';
import { boundedQueue } from '../bounded-queue';

const derive = promisify<string, Buffer, number, ScryptOptions, Buffer>(scrypt);

/** Cost, block size and lanes of scrypt (RFC 7914): about 60 ms and 32 MB. */
const COST = { N: 2 ** 15, r: 8, p: 1 };
const LENGTH = 32;

/** Shortest password that is taken, in characters. */
export const SHORTEST_PASSWORD = 10;

/** The stored form of a password: `scrypt$N$r$p$salt$hash`, salt and hash in base64. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  const hash = await scryptOf(password, salt, COST);
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), hash.toString('base64')].join('$');
}

/**
 * Whether a password is the one that was kept. Takes as long where nothing is kept, so that nobody learns who has an
 * account.
 */
export async function isPassword(password: string, kept: string | null | undefined): Promise<boolean> {
  const [, N, r, p, salt = '', hash = ''] = (kept ?? NOBODY).split('$');
  const found = await scryptOf(password, Buffer.from(salt, 'base64'), { N: Number(N), r: Number(r), p: Number(p) });
  return timingSafeEqual(found, Buffer.from(hash, 'base64')) && typeof kept === 'string';
}

const NOBODY = [
  'scrypt',
  COST.N,
  COST.r,
  COST.p,
  Buffer.alloc(16).toString('base64'),
  Buffer.alloc(LENGTH).toString('base64'),
].join('$');

/** Passwords are the same however a keyboard composes their letters (RFC 8265 asks for NFC). */
const scryptOf = (password: string, salt: Buffer, { N, r, p }: typeof COST): Promise<Buffer> =>
  inTurn(() => derive(password.normalize('NFC'), salt, LENGTH, { N, r, p, maxmem: 128 * N * r * 2 }));

/** Two hashes are computed in parallel: the rest of Node's threads compress responses. Sixty wait, about two seconds. */
const inTurn = boundedQueue(2, 60, 'Too many people sign in just now. Wait a minute, then try again.');
