import { generateKeyBetween } from 'fractional-indexing';

/** An order key for a rule that is to stand before place `to`. Two people who made rules at once may have given them equal keys: those count as one place. */
export function keyBefore(entries: readonly { readonly key: string }[], to: number): string {
  const before = entries[to - 1]?.key ?? null;
  const after = entries.slice(to).find(({ key }) => before === null || key > before)?.key ?? null;
  return generateKeyBetween(before, after);
}
