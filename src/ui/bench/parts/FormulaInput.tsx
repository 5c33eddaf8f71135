import { Suspense } from 'react';
import { LazyRuleFormula } from '../../formula/lazy-formula-editor';
import classes from './FormulaInput.module.css';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (formula: string) => void;
}

/** A formula of a rule. One with a syntax error is reported, and the last valid one stays active. */
export function FormulaInput({ label, value, onChange }: Props) {
  return (
    <Suspense fallback={<b>{value}</b>}>
      <LazyRuleFormula label={label} value={value} onChange={onChange} className={classes.formula} />
    </Suspense>
  );
}
