import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { adjacencyGraphs, dictionary } from '@zxcvbn-ts/language-common';

/**
 * Refuses what an attacker who knows common passwords guesses within a million tries (score 2 of zxcvbn, Wheeler 2016).
 */
const LEAST_SCORE = 2;
/** Characters that are looked at: longer passwords are not common ones, and looking at them takes long. */
const LOOKED_AT = 64;

let checker: ZxcvbnFactory | undefined;

/** Whether a password is one that is guessed first: a common one, or made of the person's own name or address. */
export function isWeakPassword(password: string, about: readonly string[]): boolean {
  checker ??= new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  return checker.check(password.slice(0, LOOKED_AT), about.slice() as string[]).score < LEAST_SCORE;
}
