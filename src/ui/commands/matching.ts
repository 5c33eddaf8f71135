import { foldText } from '../../core/values/fold-text';
import type { Command } from './commands';

/** The commands whose words have each word that was typed, those whose title begins with it first. */
export function matching(commands: readonly Command[], query: string): readonly Command[] {
  const typed = foldText(query);
  if (typed === '') return commands;
  const words = typed.split(' ');
  const found = commands.filter(({ title, also = '' }) => {
    const text = foldText(`${title} ${also}`);
    return words.every((word) => text.includes(word));
  });
  const rank = ({ title }: Command): number => (foldText(title).startsWith(typed) ? 0 : 1);
  return found.toSorted((one, other) => rank(one) - rank(other));
}
