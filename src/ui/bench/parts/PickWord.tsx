import { keysOf } from '../../../core/values/typed-keys';
import { Pick } from './Pick';

interface Props<K extends string> {
  readonly label: string;
  readonly value: K;
  /** The word of each choice in the sentence. */
  readonly words: Readonly<Record<K, string>>;
  readonly onPick: (choice: K) => void;
}

/** One of a few choices that are known by their words. */
export function PickWord<K extends string>({ label, value, words, onPick }: Props<K>) {
  const options = keysOf(words).map((id) => ({ id, words: words[id] }));
  return <Pick label={label} value={value} shown={words[value]} options={options} onPick={onPick} />;
}
