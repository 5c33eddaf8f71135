import { useTranslations } from 'use-intl';
import { readAmount, type AmountOrPercent } from '../../../core/rules/compile/amount-or-percent';
import { TypedInput } from './TypedInput';

interface Props {
  readonly label: string;
  readonly value: AmountOrPercent;
  readonly onChange: (amount: AmountOrPercent) => void;
}

/** How much: a number, or a percentage such as 10%. */
export function AmountInput({ label, value, onChange }: Props) {
  const t = useTranslations('bench');
  return (
    <TypedInput
      label={label}
      shown={String(value)}
      read={readAmount}
      expects={t('numberMorePercentageSuch')}
      onChange={onChange}
    />
  );
}
