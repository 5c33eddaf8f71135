import { COMPARISONS, operandsOf, takesTwo, type CompareWhen, type ComparisonName } from '../../../core/rules/kinds/compare';
import type { Operand } from '../../../core/rules/rule';
import { Pick } from '../parts/Pick';
import { PickOperand } from '../parts/PickOperand';
import { useSessionState } from '../../sheet/use-session';
import type { BenchKind, ConditionProps } from './bench-kind';

export const compareBench: BenchKind<CompareWhen> = {
  title: 'Compare with a value',
  says: 'below, above, between two values, equal to a text, or beside another field',
  suits: ({ numbers, texts }) => numbers + texts > 0,
  Condition: CompareCondition,
};

const HOW = {
  exact: 'exactly',
  shown: 'as shown, rounded like the display',
  size: 'by size, whatever the sign',
  'shown and size': 'as shown and by size',
} as const;

function CompareCondition({ when, field, fields, onChange }: ConditionProps<CompareWhen>) {
  const operands = operandsOf(when);
  const median = useSessionState((state) => state.profile?.profile.median) ?? 0;
  const how = ([when.asShown && 'shown', when.magnitude && 'size'].filter(Boolean).join(' and ') || 'exact') as keyof typeof HOW;
  const compareBy = (is: ComparisonName) => {
    const first = operands[0]!;
    const second = operands[1] ?? (typeof first === 'number' ? first + Math.max(1, Math.abs(first) / 2) : first);
    onChange({ ...when, is, to: takesTwo(is) ? [first, second] : first });
  };
  const put = (at: number, operand: Operand) =>
    onChange({ ...when, to: takesTwo(when.is) ? (operands.with(at, operand) as [Operand, Operand]) : operand });
  return (
    <>
      <Pick
        label="Comparison"
        value={when.is}
        shown={COMPARISONS[when.is]}
        options={Object.entries(COMPARISONS).map(([id, words]) => ({ id, words }))}
        onPick={(id) => compareBy(id as ComparisonName)}
      />{' '}
      {operands.map((operand, at) => (
        <span key={at}>
          {at > 0 && ' and '}
          <PickOperand
            operand={operand}
            label={operands.length > 1 ? (at === 0 ? 'One end' : 'Other end') : 'Threshold'}
            field={field}
            fields={fields}
            takes="any"
            outright={median}
            onChange={(next) => put(at, next)}
          />
        </span>
      ))}{' '}
      <Pick
        label="How"
        value={how}
        shown={HOW[how]}
        options={Object.entries(HOW).map(([id, words]) => ({ id, words }))}
        onPick={(id) => {
          const { asShown: _, magnitude: __, ...rest } = when;
          onChange({ ...rest, ...(id.includes('shown') ? { asShown: true } : {}), ...(id.includes('size') ? { magnitude: true } : {}) });
        }}
      />
    </>
  );
}
