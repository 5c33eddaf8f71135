import type { Texts } from '../../../texts/texts';

/** A length of time, given in days, in the unit that suits it. */
export function timeWords(days: number, t: Texts<'past'>): string {
  const minutes = days * 1440;
  if (minutes < 90) return t('minutes', { count: Math.max(1, Math.round(minutes)) });
  if (days < 2) return t('hours', { count: Math.round(days * 24) });
  return t('days', { count: Math.round(days) });
}
