import { useState, type KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { isFormulaInput } from '../../../core/values/is-formula-input';
import classes from '../Bench.module.css';

interface Props<T> {
  readonly label: string;
  /** The value as it is written while nobody types. */
  readonly shown: string;
  readonly read: (text: string) => T | undefined;
  /** What is expected, such as "number". */
  readonly expects: string;
  readonly isDecimal?: boolean;
  /** Takes a text that begins with "=", once it is complete. */
  readonly onFormula?: ((text: string) => void) | undefined;
  readonly onChange: (value: T) => void;
}

/**
 * A word of the sentence that is typed: a valid input is applied at once, an invalid one leaves the last value active.
 */
export function TypedInput<T>({ label, shown, read, expects, isDecimal = false, onFormula, onChange }: Props<T>) {
  const t = useTranslations('bench');
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? shown;
  const isFormula = onFormula !== undefined && isFormulaInput(text);
  const isWrong = typed !== null && !isFormula && read(typed) === undefined;

  const change = (next: string) => {
    setTyped(next);
    const found = onFormula && isFormulaInput(next) ? undefined : read(next);
    if (found !== undefined) onChange(found);
  };
  const end = () => {
    if (typed !== null && isFormula) onFormula(typed.trim());
    setTyped(null);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Enter') return;
    // What is not taken is not saved either.
    if (isWrong) event.preventDefault();
    end();
  };

  return (
    <input
      className={classes.threshold}
      aria-label={label}
      aria-invalid={isWrong}
      title={isWrong ? t('notExpectsLastOne', { expects }) : undefined}
      value={text}
      size={Math.max(text.length, 2)}
      inputMode={isDecimal ? 'decimal' : 'text'}
      onChange={(event) => change(event.currentTarget.value)}
      onBlur={end}
      onKeyDown={onKeyDown}
    />
  );
}
