import { COMPARISONS, operandsOf, takesTwo, type CompareWhen, type ComparisonName } from '../../../core/rules/kinds/compare';
import type { Operand } from '../../../core/rules/rule';
import { Pick } from '../Pick';
import { ThresholdInput } from '../ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const compareBench: BenchKind<CompareWhen> = {
  title: 'Compare with a value',
  says: 'below, above, between two values, equal to a text, or beside another field',
  Condition: CompareCondition,
};

function CompareCondition({ when, field, fields, onChange }: ConditionProps<CompareWhen>) {
  const operands = operandsOf(when);
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
          <OperandPart
            operand={operand}
            label={operands.length > 1 ? (at === 0 ? 'One end' : 'Other end') : 'Threshold'}
            field={field}
            fields={fields}
            onChange={(next) => put(at, next)}
          />
        </span>
      ))}
    </>
  );
}

interface OperandProps {
  readonly field: ConditionProps['field'];
  readonly fields: ConditionProps['fields'];
  readonly operand: Operand;
  readonly label: string;
  readonly onChange: (operand: Operand) => void;
}

/** A value given outright, or another field of the same record. */
function OperandPart({ operand, label, field, fields, onChange }: OperandProps) {
  const others = fields.filter((other) => other.id !== field?.id);
  const options = [{ id: '', words: 'a value' }, ...others.map((other) => ({ id: other.id, words: `the record’s ${other.label}` }))];
  const pick = (id: string) => onChange(id === '' ? 0 : { field: id });
  if (typeof operand !== 'object') {
    return (
      <>
        <ThresholdInput
          label={label}
          value={operand}
          format={field?.format ?? null}
          unit={typeof operand === 'number' ? (field?.unit ?? null) : null}
          takes="any"
          onChange={onChange}
        />{' '}
        <Pick label={`${label} is`} value="" shown="▾" options={options} onPick={pick} />
      </>
    );
  }
  if ('cell' in operand) return <b>{operand.cell}</b>;
  if ('formula' in operand) return <b>{operand.formula}</b>;
  const named = fields.find((other) => other.id === operand.field);
  return (
    <>
      <Pick label={`${label} is`} value={operand.field} shown={`the record’s ${named?.label ?? 'removed field'}`} options={options} onPick={pick} />{' '}
      times{' '}
      <ThresholdInput
        label="Factor"
        value={operand.times ?? 1}
        format={null}
        unit={null}
        takes="number"
        onChange={(times) => onChange({ ...operand, times: Number(times) })}
      />
    </>
  );
}
