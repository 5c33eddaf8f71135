import { readThreshold, type Typed } from '../../../core/rules/shape/read-threshold';
import { thresholdText } from '../../../core/rules/shape/sentence-words';
import classes from './ThresholdInput.module.css';
import { TypedInput } from './TypedInput';

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

/**
 * A threshold, typed in the field's own format: 70% over a percentage is 0.7, and so is 70 where the field shows
 * percentages.
 */
export function ThresholdInput({ label, value, format, unit, takes, onChange }: Props) {
  return (
    <>
      <TypedInput
        label={label}
        shown={typeof value === 'number' ? thresholdText(value, format) : String(value)}
        read={(text) => readThreshold(text, { format, takes })}
        expects={takes === 'date' ? 'day such as 2026-03-08' : 'number'}
        isDecimal={takes === 'number'}
        onChange={onChange}
      />
      {unit && <span className={classes.unit}>{unit}</span>}
    </>
  );
}
