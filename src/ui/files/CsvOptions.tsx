import { Radio, Select, Switch } from '@mantine/core';
import type { Separator } from '../../core/exchange/csv/csv-rows';
import type { Decimal } from '../../core/exchange/exported-file';
import { DECIMAL_CHOICES, SEPARATOR_CHOICES } from './csv-words';
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
  const { values, separator, decimal, guard } = options;
  const put = (part: Partial<CsvChoice>) => onChange({ ...options, ...part });
  return (
    <>
      {isMaker && (
        <Radio.Group<CsvChoice['values']> value={values} onChange={(next) => put({ values: next })} label="Values">
          <div className={classes.choices}>
            <Radio value="shown" label="As they are shown" />
            <Radio value="typed" label="As they were typed, formulas and all: so they come back as they are" />
          </div>
        </Radio.Group>
      )}
      <div className={classes.pair}>
        <Select
          label="Between values"
          w={200}
          data={SEPARATOR_CHOICES}
          value={separator}
          allowDeselect={false}
          onChange={(next) => next && put({ separator: next })}
        />
        {values === 'shown' && (
          <Select
            label="Decimals"
            w={200}
            data={DECIMAL_CHOICES}
            value={decimal}
            allowDeselect={false}
            onChange={(next) => next && put({ decimal: next })}
          />
        )}
      </div>
      {values === 'shown' && (
        <Switch
          label="Guard text that begins like a formula"
          description="other programs may run text that begins with =, +, - or @: an apostrophe before it stops that"
          checked={guard}
          onChange={({ currentTarget }) => put({ guard: currentTarget.checked })}
        />
      )}
    </>
  );
}
