import { IconCalendar } from '@tabler/icons-react';
import { Suspense } from 'react';
import { useTranslations } from 'use-intl';
import { readThreshold, type Typed } from '../../../core/rules/shape/read-threshold';
import { thresholdText } from '../../../core/values/threshold-text';
import { LazyDayPicker } from '../../dates/lazy-days';
import classes from './ThresholdInput.module.css';
import { TypedInput } from './TypedInput';
import { Unfold } from './Unfold';
import { useDecimal } from '../../sheet/use-decimal';

interface Props {
  readonly label: string;
  readonly value: Typed;
  /** The number format of the field that is compared. */
  readonly format: string | null;
  readonly unit: string | null;
  /** A day is given as text in ISO form. */
  readonly takes: 'number' | 'any' | 'date';
  /** Takes a formula or a cell that is typed with "=" before it. */
  readonly onFormula?: (text: string) => void;
  readonly onChange: (value: Typed) => void;
}

/**
 * A threshold, typed in the field's own format: 70% over a percentage is 0.7, and so is 70 where the field shows
 * percentages.
 */
export function ThresholdInput({ label, value, format, unit, takes, onFormula, onChange }: Props) {
  const t = useTranslations('bench');
  const isNumber = takes === 'number' || typeof value === 'number';
  const decimal = useDecimal();
  return (
    <>
      <TypedInput
        label={label}
        shown={typeof value === 'number' ? thresholdText(value, format) : String(value)}
        read={(text) =>
          readThreshold(text, { format, takes, decimal: isNumber && decimal === '.' ? 'either' : decimal })
        }
        expects={takes === 'date' ? t('daySuchAs') : t('number')}
        isDecimal={takes === 'number'}
        onFormula={onFormula}
        onChange={onChange}
      />
      {takes === 'date' && (
        <Unfold
          label={t('labelCalendar', { label })}
          button={{
            label: t('labelPickFromCalendar', { label }),
            className: classes.calendar,
            shows: <IconCalendar size={15} stroke={1.5} aria-hidden />,
          }}
        >
          <Suspense fallback={null}>
            <LazyDayPicker label={label} value={String(value)} onPick={onChange} />
          </Suspense>
        </Unfold>
      )}
      {unit && <span className={classes.unit}>{unit}</span>}
    </>
  );
}
