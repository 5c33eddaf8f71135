import { useTranslations } from 'use-intl';
import type { FormulaWhen } from '../../../core/rules/kinds/formula';
import { CellInput } from '../parts/CellInput';
import { FormulaInput } from '../parts/FormulaInput';
import { Readings } from '../Readings';
import type { BenchKind, ConditionProps } from './bench-kind';

export const formulaBench: BenchKind<FormulaWhen> = {
  title: 'customFormula',
  says: 'anyFormulaTRUEOr',
  needs: 'anything',
  Condition: FormulaCondition,
  Outcomes: Readings,
};

function FormulaCondition({ when, onChange }: ConditionProps<FormulaWhen>) {
  const t = useTranslations('bench');
  return (
    <>
      {t('makes')}{' '}
      <FormulaInput label={t('formula')} value={when.formula} onChange={(formula) => onChange({ ...when, formula })} />{' '}
      {t('trueWrittenFor')}{' '}
      <CellInput
        label={t('writtenFor')}
        value={when.at ?? ''}
        placeholder={t('theFirstCell')}
        takes="cell"
        onChange={(at) => onChange({ ...when, at })}
      />
    </>
  );
}
