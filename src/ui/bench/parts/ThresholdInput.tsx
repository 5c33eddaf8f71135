import { useState, type KeyboardEvent } from 'react';
import { thresholdText } from '../../../core/rules/sentence-words';
import { readThreshold, type Typed } from '../../../core/rules/read-threshold';
import classes from '../Bench.module.css';

interface Props {
  readonly label: string;
  readonly value: Typed;
  /** The number format of the field that is compared. */
  readonly format: string | null;
  readonly unit: string | null;
  /** A day is given as text in ISO form. */
  readonly takes: 'number' | 'any' | 'date';
  readonly onChange: (value: Typed) => void;
}

/** A threshold, typed in the field's own format: 70% over a percentage is 0.7, and so is 70 where the field shows percentages. */
export function ThresholdInput({ label, value, format, unit, takes, onChange }: Props) {
  const shown = typeof value === 'number' ? thresholdText(value, format) : String(value);
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? shown;
  const read = typed === null ? value : readThreshold(typed, { format, takes });

  const change = (next: string) => {
    setTyped(next);
    const found = readThreshold(next, { format, takes });
    if (found !== undefined) onChange(found);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') setTyped(null);
  };

  return (
    <>
      <input
        className={classes.threshold}
        aria-label={label}
        aria-invalid={read === undefined}
        title={read === undefined ? `Not a ${takes === 'date' ? 'day such as 2026-03-08' : 'number'}: the last one still stands` : undefined}
        value={text}
        size={Math.max(text.length, 2)}
        inputMode={takes === 'number' ? 'decimal' : 'text'}
        onChange={(event) => change(event.currentTarget.value)}
        onBlur={() => setTyped(null)}
        onKeyDown={onKeyDown}
      />
      {unit && <span className={classes.unit}>{unit}</span>}
    </>
  );
}
