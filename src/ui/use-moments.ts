import { useFormatter } from 'use-intl';

/** Says moments (milliseconds of the Unix epoch) by the reader's clock and region: "26 Nov 2026, 11:05". */
export function useMoments(): (epochMs: number) => string {
  const { dateTime } = useFormatter();
  return (epochMs) =>
    dateTime(epochMs, {
      day: 'numeric',
      month: 'short',
      year: 'numeric',
      hour: '2-digit',
      minute: '2-digit',
      hourCycle: 'h23',
    });
}
