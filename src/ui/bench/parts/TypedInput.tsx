import { useState, type KeyboardEvent } from 'react';
import classes from '../Bench.module.css';

interface Props<T> {
  readonly label: string;
  /** The value as it is written while nobody types. */
  readonly shown: string;
  readonly read: (text: string) => T | undefined;
  /** What is expected, such as "number". */
  readonly expects: string;
  readonly isDecimal?: boolean;
  readonly onChange: (value: T) => void;
}

/**
 * A word of the sentence that is typed: a valid input is applied at once, an invalid one leaves the last value active.
 */
export function TypedInput<T>({ label, shown, read, expects, isDecimal = false, onChange }: Props<T>) {
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? shown;
  const isWrong = typed !== null && read(typed) === undefined;

  const change = (next: string) => {
    setTyped(next);
    const found = read(next);
    if (found !== undefined) onChange(found);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') setTyped(null);
  };

  return (
    <input
      className={classes.threshold}
      aria-label={label}
      aria-invalid={isWrong}
      title={isWrong ? `Not a ${expects}: the last one still stands` : undefined}
      value={text}
      size={Math.max(text.length, 2)}
      inputMode={isDecimal ? 'decimal' : 'text'}
      onChange={(event) => change(event.currentTarget.value)}
      onBlur={() => setTyped(null)}
      onKeyDown={onKeyDown}
    />
  );
}
