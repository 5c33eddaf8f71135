import { DateInput, DatesProvider } from '@mantine/dates';
import dayjs from 'dayjs';
import '@mantine/dates/styles.css';
import { useLocale } from 'use-intl';
import { dayLocale } from './day-locale';

interface Props {
  readonly label: string;
  /** A day as yyyy-mm-dd; empty for none. */
  readonly value: string;
  /** Days before today are not offered. */
  readonly isFuture?: boolean;
  readonly onChange: (day: string) => void;
}

/** A day, typed or picked from a calendar, as the reader's language and region write it. */
export function DayInput({ label, value, isFuture = false, onChange }: Props) {
  const { pattern, firstDayOfWeek } = dayLocale(useLocale());
  return (
    <DatesProvider settings={{ firstDayOfWeek }}>
      <DateInput
        label={label}
        placeholder={pattern.toLowerCase()}
        valueFormat={pattern}
        clearable
        {...(isFuture ? { minDate: dayjs().format('YYYY-MM-DD') } : {})}
        value={value === '' ? null : value}
        onChange={(day) => onChange(day ?? '')}
      />
    </DatesProvider>
  );
}
