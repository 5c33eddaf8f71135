import { setTimeout as pause } from 'node:timers/promises';
import type { Sql } from '../database';
import { Refusal } from '../refusal';
import { isKnownDevice, countGuess, forgetGuess } from '../sql/session';
import { hashToken } from './token';
import { refusalText } from '../../texts/refusal-text';

/** Guesses in a quarter of an hour: of one client at one account, and of one client at all. */
const MAX_AT_ONE = 10;
const MAX_OF_CLIENT = 60;
/**
 * Guesses at one account, by anybody, after which each takes longer, and after which only browsers that are known get
 * through.
 */
const DELAY_FROM_FAILURES = 10;
const MAX_BY_ANYBODY = 100;
const DELAY_STEP_MS = 200;
const MAX_DELAY_MS = 3000;

/** Who guesses. */
export interface Guesser {
  /** The address that the request comes from. */
  readonly client: string;
  /** The token that a browser keeps in which somebody has signed in before. */
  readonly device: string | undefined;
}

const TOO_OFTEN = refusalText('tooManyWrongPasswords');

/**
 * Counts a guess at a password before it is checked, and slows guessing down. Guesses are counted by account, however
 * the address is spelled, and by client. Strangers cannot shut out the owner of an account: a browser in which they
 * have signed in before has a count of its own. Throws a Refusal where there were too many. Returns what is to be
 * called when the password was right.
 */
export async function countedGuess(
  sql: Sql,
  at: { readonly person: string | undefined; readonly email: string },
  { client, device }: Guesser,
): Promise<() => Promise<void>> {
  const whose = at.person === undefined ? `address ${at.email.toLowerCase()}` : `person ${at.person}`;
  const isKnown =
    device !== undefined && at.person !== undefined && (await isKnownDevice(sql, at.person, hashToken(device)));
  const guesser = isKnown ? `device ${device}` : `client ${client}`;
  const keys = [`${guesser} at ${whose}`, `${guesser}`, ...(isKnown ? [] : [`at ${whose}`])].map(hashToken);
  const [atOne = 0, ofClient = 0, byAnybody = 0] = await Promise.all(keys.map((key) => countGuess(sql, key)));
  if (atOne > MAX_AT_ONE || ofClient > MAX_OF_CLIENT || byAnybody > MAX_BY_ANYBODY)
    throw new Refusal('too-often', TOO_OFTEN);
  if (byAnybody > DELAY_FROM_FAILURES)
    await pause(Math.min(MAX_DELAY_MS, (byAnybody - DELAY_FROM_FAILURES) * DELAY_STEP_MS));
  return () => forgetGuess(sql, keys);
}
