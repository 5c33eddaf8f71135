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
import { isoFromSerial } from '../../../core/values/date-serial';
import { useSessionState } from '../../sheet/use-session';
import { PickOperand } from '../parts/PickOperand';
import { PickWord } from '../parts/PickWord';
import { ThresholdInput } from '../parts/ThresholdInput';
import type { BenchKind, ConditionProps } from './bench-kind';

export const dateBench: BenchKind<DateWhen> = {
  title: 'Dates',
  says: 'past, due in the next days, this month, before a day, between two',
  needs: ['dates'],
  Condition: DateCondition,
};

const SPANS = {
  last: 'is in the last',
  next: 'is in the next',
  this: 'is in this',
  previous: 'is in the previous',
  following: 'is in the following',
} as const;
const TESTS = { ...DAYS_BY_TODAY, ...SPANS, ...DAYS_GIVEN } as const;
type Test = keyof typeof TESTS;

const UNIT_WORDS = recordOf(DATE_UNITS, String);
const UNITS_WORDS = recordOf(DATE_UNITS, (unit) => `${unit}s`);

function DateCondition({ when, field, fields, onChange }: ConditionProps<DateWhen>) {
  const { is } = when;
  const today = useSessionState((state) => isoFromSerial(state.profile?.today ?? 0));
  const test = testOf(is);
  const days = daysGivenIn(when);
  const put = (at: number, operand: Operand) =>
    onChange({ kind: 'date', is, to: is === 'between' ? withOperand(days, at, operand) : operand });
  const unit = typeof is === 'string' ? 'day' : 'unit' in is ? is.unit : calendarSpan(is).unit;
  return (
    <>
      <PickWord label="Test" value={test} words={TESTS} onPick={(next) => onChange(withTest(when, next, today))} />
      {typeof is === 'object' && 'unit' in is && (
        <>
          {' '}
          <ThresholdInput
            label="How many"
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
      )}
      {typeof is === 'object' && (
        <>
          {' '}
          <PickWord
            label="Unit"
            value={unit}
            words={'unit' in is && ('last' in is ? is.last : is.next) !== 1 ? UNITS_WORDS : UNIT_WORDS}
            onPick={(next) => onChange({ kind: 'date', is: withUnit(is, next) })}
          />
        </>
      )}
      {days.map((day, at) => (
        <span key={at}>
          {at > 0 && ' and'}{' '}
          <PickOperand
            label={days.length > 1 ? (at ? 'Last day' : 'First day') : 'Day'}
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
