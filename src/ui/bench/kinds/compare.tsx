import { useTranslations } from 'use-intl';
import { itemAt } from '../../../core/values/item-at';
import {
  COMPARISONS,
  operandsOf,
  takesTwo,
  type CompareWhen,
  type ComparisonName,
} from '../../../core/rules/kinds/compare';
import { withOperand, type Operand } from '../../../core/rules/terms';
import { PickHow } from '../parts/PickHow';
import { PickOperand } from '../parts/PickOperand';
import { PickWord } from '../parts/PickWord';
import { useSessionState } from '../../sheet/use-session';
import type { BenchKind, ConditionProps } from './bench-kind';

export const compareBench: BenchKind<CompareWhen> = {
  title: 'compareValue',
  says: 'belowAboveBetweenTwo',
  needs: ['numbers', 'texts'],
  Condition: CompareCondition,
};

function CompareCondition({ when, field, fields, onChange }: ConditionProps<CompareWhen>) {
  const t = useTranslations('bench');
  const operands = operandsOf(when);
  const median = useSessionState((state) => state.profile?.profile.median) ?? 0;
  const compareBy = (is: ComparisonName) => {
    const first = itemAt(operands, 0);
    const second = operands[1] ?? (typeof first === 'number' ? first + Math.max(1, Math.abs(first) / 2) : first);
    onChange({ ...when, is, to: takesTwo(is) ? [first, second] : first });
  };
  const put = (at: number, operand: Operand) =>
    onChange({ ...when, to: takesTwo(when.is) ? withOperand(operands, at, operand) : operand });
  return (
    <>
      <PickWord label={t('comparison')} value={when.is} words={COMPARISONS} onPick={compareBy} />{' '}
      {operands.map((operand, at) => (
        <span key={at}>
          {at > 0 && ` ${t('and')} `}
          <PickOperand
            operand={operand}
            label={operands.length > 1 ? (at === 0 ? t('oneEnd') : t('otherEnd')) : t('threshold')}
            field={field}
            fields={fields}
            takes="any"
            outright={median}
            onChange={(next) => put(at, next)}
          />
        </span>
      ))}{' '}
      <PickHow
        value={when}
        onPick={(how) => {
          const { asShown: _, magnitude: __, ...rest } = when;
          onChange({ ...rest, ...how });
        }}
      />
    </>
  );
}
