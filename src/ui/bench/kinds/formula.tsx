import type { FormulaWhen } from '../../../core/rules/kinds/formula';
import { CellInput } from '../parts/CellInput';
import { FormulaInput } from '../parts/FormulaInput';
import { Readings } from '../Readings';
import type { BenchKind, ConditionProps } from './bench-kind';

export const formulaBench: BenchKind<FormulaWhen> = {
  title: 'Custom formula',
  says: 'any formula; TRUE, or a number other than 0, paints the cell',
  needs: 'anything',
  Condition: FormulaCondition,
  Outcomes: Readings,
};

function FormulaCondition({ when, onChange }: ConditionProps<FormulaWhen>) {
  return (
    <>
      makes <FormulaInput label="Formula" value={when.formula} onChange={(formula) => onChange({ ...when, formula })} />{' '}
      true, written for{' '}
      <CellInput
        label="Written for"
        value={when.at ?? ''}
        placeholder="the first cell"
        takes="cell"
        onChange={(at) => onChange({ ...when, at })}
      />
    </>
  );
}
