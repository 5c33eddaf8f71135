import { keysOf, recordOf } from '../../../core/values/typed-keys';
import { STATES, type StateWhen } from '../../../core/rules/kinds/state';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const stateBench: BenchKind<StateWhen> = {
  title: 'Blank, filled or error',
  says: 'blank, filled, an error, a number, a text, a date',
  needs: 'anything',
  Condition: StateCondition,
};

const WORDS = recordOf(keysOf(STATES), (name) => STATES[name].says);

function StateCondition({ when, onChange }: ConditionProps<StateWhen>) {
  return <PickWord label="State" value={when.is} words={WORDS} onPick={(is) => onChange({ ...when, is })} />;
}
