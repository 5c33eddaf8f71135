import { rolledSerial } from './calendar';

/**
 * A moment (milliseconds of the Unix epoch) as a serial date and time of day by the clocks of a time zone (IANA name;
 * UTC by default). Throws a RangeError for a zone that is none.
 */
export function serialInZone(epochMs: number, zone = 'UTC'): number {
  const format = new Intl.DateTimeFormat('en', {
    timeZone: zone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
  });
  const parts = Object.fromEntries(format.formatToParts(epochMs).map(({ type, value }) => [type, Number(value)]));
  const { year, month, day, hour, minute, second } = parts as Record<
    'year' | 'month' | 'day' | 'hour' | 'minute' | 'second',
    number
  >;
  return rolledSerial(year, month, day) + (hour * 3600 + minute * 60 + second) / 86_400;
}
