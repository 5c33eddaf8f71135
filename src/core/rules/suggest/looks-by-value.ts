import { itemAt } from '../../values/item-at';
import { foldText } from '../../values/fold-text';
import type { Look } from '../../looks/look';

/** Looks for values whose meaning is not known, one after another. */
const OTHERS = ['cool', 'plum', 'watch', 'quiet', 'clear', 'alarm'] as const;

/** Words of a status, folded, by the saved look that suits them: common practice, from good to bad. */
const MEANINGS = {
  clear: 'done, ok, yes, passed, pass, complete, completed, paid, approved, ready, good, right, closed, clear, valid',
  watch:
    'in progress, under way, waiting, pending, partly, partial, due, late, at risk, warning, check, nearly, fair, some',
  alarm:
    'blocked, failed, fail, no, overdue, rejected, cancelled, missing, bad, wrong, error, critical, alarm, unpaid, invalid',
  quiet: 'none, n/a, not applicable, skipped, archived, unknown',
};
const LOOK_OF_WORD: ReadonlyMap<string, string> = new Map(
  Object.entries(MEANINGS).flatMap(([look, words]) => words.split(', ').map((word) => [word, look] as const)),
);

/**
 * A look for each of some texts: by what it means where that is known, else one after another. Texts that differ only
 * in case, accents or spaces count as one value, under its first spelling. Values of `taken` are left out.
 */
export function looksByValue(texts: readonly string[], taken: readonly string[] = []): Record<string, Look> {
  const seen = new Set(taken.map((text) => foldText(text)));
  const looks: [string, Look][] = [];
  let next = taken.length;
  for (const text of texts) {
    const folded = foldText(text);
    if (seen.has(folded)) continue;
    seen.add(folded);
    looks.push([text, { look: LOOK_OF_WORD.get(folded) ?? itemAt(OTHERS, next++ % OTHERS.length) }]);
  }
  return Object.fromEntries(looks);
}
