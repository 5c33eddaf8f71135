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
            <Radio value="shown" label="As shown" />
            <Radio value="typed" label="As typed, with formulas" />
          </div>
        </Radio.Group>
      )}
      <div className={classes.pair}>
        <Select
          label="Separator"
          w={200}
          data={SEPARATOR_CHOICES}
          value={separator}
          allowDeselect={false}
          onChange={(next) => next && put({ separator: next })}
        />
        {values === 'shown' && (
          <Select
            label="Decimal separator"
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
          label="Escape text that looks like a formula"
          description="Other programs may run text that begins with =, +, - or @. An apostrophe in front prevents that."
          checked={guard}
          onChange={({ currentTarget }) => put({ guard: currentTarget.checked })}
        />
      )}
    </>
  );
}
