import { keysOf } from '../../core/values/typed-keys';
import type { Advice } from '../../core/rules/advice/advice';
import { adviceKey } from '../../core/rules/advice/advice-key';
import { adviseOn, ADVISERS } from '../../core/rules/advice/registry';
import type { Replica } from '../replica/replica';
import type { Turns } from '../replica/turns';

/**
 * Advice on the rules, without what was dismissed. Each adviser has a turn of its own, so that other requests need not
 * wait for all of them.
 */
export async function adviceInTurns(opened: () => Replica, turns: Turns): Promise<Advice[]> {
  // A few rows of a table say too little of rules over all of them.
  if (opened().whole) return [];
  const found: Advice[] = [];
  for (const code of keysOf(ADVISERS)) {
    await turns.take(() => {
      const replica = opened();
      found.push(
        ...adviseOn(code, { evaluation: replica.evaluation, saved: replica.saved, stored: replica.rulesAtWork() }),
      );
    });
    await new Promise((resolve) => setTimeout(resolve));
  }
  return found.filter((advice) => !opened().sheet.parts.has(adviceKey(advice)));
}
