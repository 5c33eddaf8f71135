import { Radio, Select, Switch } from '@mantine/core';
import { useTranslations } from 'use-intl';
import type { Separator } from '../../core/exchange/csv/csv-rows';
import type { Decimal } from '../../core/values/decimal-comma';
import { useCsvChoices } from './use-csv-choices';
import classes from './Files.module.css';

interface CsvChoice {
  readonly values: 'shown' | 'typed';
  readonly separator: Separator;
  readonly decimal: Decimal;
  /** Whether text that begins like a formula gets an apostrophe before it. */
  readonly guard: boolean;
}

export const USUAL_CSV: CsvChoice = { values: 'shown', separator: ',', decimal: '.', guard: true };

interface Props {
  readonly options: CsvChoice;
  readonly isMaker: boolean;
  readonly onChange: (options: CsvChoice) => void;
}

/** How separated values are written. */
export function CsvOptions({ options, isMaker, onChange }: Props) {
  const t = useTranslations('files');
  const { separators, decimals } = useCsvChoices();
  const { values, separator, decimal, guard } = options;
  const put = (part: Partial<CsvChoice>) => onChange({ ...options, ...part });
  return (
    <>
      {isMaker && (
        <Radio.Group<CsvChoice['values']> value={values} onChange={(next) => put({ values: next })} label={t('values')}>
          <div className={classes.choices}>
            <Radio value="shown" label={t('asShown')} />
            <Radio value="typed" label={t('asTypedWithFormulas')} />
          </div>
        </Radio.Group>
      )}
      <div className={classes.pair}>
        <Select
          label={t('separator')}
          w={200}
          data={separators}
          value={separator}
          allowDeselect={false}
          onChange={(next) => next && put({ separator: next })}
        />
        {values === 'shown' && (
          <Select
            label={t('decimalSeparator')}
            w={200}
            data={decimals}
            value={decimal}
            allowDeselect={false}
            onChange={(next) => next && put({ decimal: next })}
          />
        )}
      </div>
      {values === 'shown' && (
        <Switch
          label={t('escapeTextLooksLike')}
          description={t('otherProgramsMayRun')}
          checked={guard}
          onChange={({ currentTarget }) => put({ guard: currentTarget.checked })}
        />
      )}
    </>
  );
}
