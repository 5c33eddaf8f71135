import { useState, type KeyboardEvent } from 'react';
import { thresholdText } from '../../core/rules/sentence-words';
import { readInput } from '../../core/values/read-input';
import classes from './Bench.module.css';

/** What a threshold may be when it is typed: a number, or text where the condition takes it. */
export type Typed = number | string | boolean;

interface Props {
  readonly label: string;
  readonly value: Typed;
  /** The number format of the field that is compared. */
  readonly format: string | null;
  readonly unit: string | null;
  readonly takes: 'number' | 'any';
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
        title={read === undefined ? 'Not a number: the last threshold that was one still stands' : undefined}
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

function readThreshold(text: string, { format, takes }: { format: string | null; takes: 'number' | 'any' }): Typed | undefined {
  const { value, format: typedFormat } = readInput(text);
  if (value.kind === 'number')
    return format?.includes('%') && !typedFormat?.includes('%') ? Number((value.number / 100).toPrecision(15)) : value.number;
  if (takes === 'number' || value.kind === 'blank') return undefined;
  return value.kind === 'logical' ? value.logical : text.trim();
}
