import { useTranslations } from 'use-intl';
import { UNIT_TEXTS } from './unit-texts';
import { eachText } from '../../../texts/texts';
import { recordOf, hasKey } from '../../../core/values/typed-keys';
import {
  DATE_UNITS,
  DAYS_BY_TODAY,
  DAYS_GIVEN,
  calendarSpan,
  daysGivenIn,
  runOfDays,
  unitOfCalendar,
  type DateUnit,
  type DateWhen,
  type RelativeSpan,
} from '../../../core/rules/kinds/date';
import { withOperand, type Operand } from '../../../core/rules/terms';
import { isoFromSerial } from '../../../core/values/dates/date-serial';
import { useSessionState } from '../../sheet/use-session';
import { PickOperand } from '../parts/PickOperand';
import { PickWord } from '../parts/PickWord';
import { ThresholdInput } from '../parts/ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const dateBench: BenchKind<DateWhen> = {
  title: 'dates',
  says: 'pastDueNextDays',
  needs: ['dates'],
  Condition: DateCondition,
};

const SPANS = {
  last: 'last',
  next: 'next',
  this: 'isInThis',
  previous: 'previous',
  following: 'following',
} as const;
type Test = keyof typeof DAYS_BY_TODAY | keyof typeof SPANS | keyof typeof DAYS_GIVEN;

function DateCondition({ when, field, fields, onChange }: ConditionProps<DateWhen>) {
  const t = useTranslations('bench');
  const { is } = when;
  const today = useSessionState((state) => isoFromSerial(state.profile?.today ?? 0));
  const test = testOf(is);
  const days = daysGivenIn(when);
  const put = (at: number, operand: Operand) =>
    onChange({ kind: 'date', is, to: is === 'between' ? withOperand(days, at, operand) : operand });
  const unit = typeof is === 'string' ? 'day' : 'unit' in is ? is.unit : calendarSpan(is).unit;
  return (
    <>
      <PickWord
        label={t('test')}
        value={test}
        words={{ ...DAYS_BY_TODAY, ...eachText(SPANS, (key) => t(key)), ...DAYS_GIVEN }}
        onPick={(next) => onChange(withTest(when, next, today))}
      />
      {typeof is === 'object' && 'unit' in is && <CountOfUnits is={is} onChange={onChange} />}
      {typeof is === 'object' && (
        <>
          {' '}
          <PickWord
            label={t('unit')}
            value={unit}
            words={recordOf(DATE_UNITS, (each) =>
              t(UNIT_TEXTS[each], { count: 'unit' in is ? ('last' in is ? is.last : is.next) : 1 }),
            )}
            onPick={(next) => onChange({ kind: 'date', is: withUnit(is, next) })}
          />
        </>
      )}
      {days.map((day, at) => (
        <span key={at}>
          {at > 0 && ` ${t('and')}`}{' '}
          <PickOperand
            label={days.length > 1 ? (at ? t('lastDay') : t('firstDay')) : t('day')}
            operand={day}
            field={field}
            fields={fields}
            takes="date"
            outright={today}
            onChange={(next) => put(at, next)}
          />
        </span>
      ))}
    </>
  );
}

interface CountProps {
  readonly is: Extract<RelativeSpan, { readonly unit: unknown }>;
  readonly onChange: ConditionProps<DateWhen>['onChange'];
}

/** How many days, weeks or months a span has. */
function CountOfUnits({ is, onChange }: CountProps) {
  const t = useTranslations('bench');
  return (
    <>
      {' '}
      <ThresholdInput
        label={t('howMany')}
        value={'last' in is ? is.last : is.next}
        format={null}
        unit={null}
        takes="number"
        onChange={(count) =>
          isCount(count) &&
          onChange({
            kind: 'date',
            is: 'last' in is ? { ...is, last: Number(count) } : { ...is, next: Number(count) },
          })
        }
      />
    </>
  );
}

const isCount = (count: unknown): boolean => Number.isInteger(count) && Number(count) >= 1 && Number(count) <= 100_000;

function testOf(is: DateWhen['is']): Test {
  if (typeof is === 'string') return is;
  if ('last' in is) return 'last';
  return 'next' in is ? 'next' : calendarSpan(is).which;
}

const withUnit = (is: RelativeSpan, unit: DateUnit): RelativeSpan =>
  'unit' in is ? { ...is, unit } : unitOfCalendar(calendarSpan(is).which, unit);

/** The condition with another test, what it has in common with the one before kept. */
function withTest(when: DateWhen, test: Test, today: string): DateWhen {
  const [first = today, second = first] = daysGivenIn(when);
  if (test === 'between') return { kind: 'date', is: test, to: [first, second] };
  if (hasKey(DAYS_GIVEN, test)) return { kind: 'date', is: test, to: first };
  if (hasKey(DAYS_BY_TODAY, test)) return { kind: 'date', is: test };
  if (test === 'last' || test === 'next') return { kind: 'date', is: runOfDays(test, 7, 'day') };
  return { kind: 'date', is: unitOfCalendar(test, 'week') };
}
