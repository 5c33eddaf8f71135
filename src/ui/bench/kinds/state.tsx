import { useTranslations } from 'use-intl';
import { keysOf, recordOf } from '../../../core/values/typed-keys';
import { STATES, type StateWhen } from '../../../core/rules/kinds/state';
import { PickWord } from '../parts/PickWord';
import type { BenchKind, ConditionProps } from './bench-kind';

export const stateBench: BenchKind<StateWhen> = {
  title: 'blankFilledOrError',
  says: 'blankFilledErrorNumber',
  needs: 'anything',
  Condition: StateCondition,
};

const WORDS = recordOf(keysOf(STATES), (name) => STATES[name].says);

function StateCondition({ when, onChange }: ConditionProps<StateWhen>) {
  const t = useTranslations('bench');
  return <PickWord label={t('state')} value={when.is} words={WORDS} onPick={(is) => onChange({ ...when, is })} />;
}
