import { DatePicker, DatesProvider } from '@mantine/dates';
import '@mantine/dates/styles.css';
import { useLocale } from 'use-intl';
import { dayLocale } from './day-locale';

interface Props {
  readonly label: string;
  /** A day as yyyy-mm-dd. */
  readonly value: string;
  readonly onPick: (day: string) => void;
}

/** A calendar to pick a day from. */
export function DayPicker({ label, value, onPick }: Props) {
  const { firstDayOfWeek } = dayLocale(useLocale());
  const day = /^\d{4}-\d{2}-\d{2}$/.test(value) ? value : null;
  return (
    <DatesProvider settings={{ firstDayOfWeek }}>
      <DatePicker
        aria-label={label}
        size="sm"
        {...(day === null ? {} : { defaultDate: day })}
        value={day}
        onChange={(next) => next !== null && onPick(next)}
      />
    </DatesProvider>
  );
}
