import { readAmount, type AmountOrPercent } from '../../../core/rules/compile/amount-or-percent';
import { TypedInput } from './TypedInput';

interface Props {
  readonly label: string;
  readonly value: AmountOrPercent;
  readonly onChange: (amount: AmountOrPercent) => void;
}

/** How much: a number, or a percentage such as 10%. */
export function AmountInput({ label, value, onChange }: Props) {
  return (
    <TypedInput
      label={label}
      shown={String(value)}
      read={readAmount}
      expects="number of 0 or more, or a percentage such as 10%"
      onChange={onChange}
    />
  );
}
