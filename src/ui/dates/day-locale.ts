/** How days are written and weeks begin in a language and region. */
export interface DayLocale {
  /** The order of day, month and year, as a pattern of the date library. */
  readonly pattern: string;
  /** The first day of the week, from Sunday as 0. */
  readonly firstDayOfWeek: 0 | 1 | 2 | 3 | 4 | 5 | 6;
}

const PARTS: Partial<Record<Intl.DateTimeFormatPartTypes, string>> = { day: 'DD', month: 'MM', year: 'YYYY' };

interface WithWeek {
  readonly weekInfo?: { readonly firstDay: number };
  getWeekInfo?(): { readonly firstDay: number };
}

/**
 * How days are written in a language and region, given as a tag of BCP 47: by what the browser knows of it (ECMA-402),
 * weeks from Monday (ISO 8601) where it does not know.
 */
export function dayLocale(tag: string): DayLocale {
  const parts = new Intl.DateTimeFormat(tag, { day: '2-digit', month: '2-digit', year: 'numeric' }).formatToParts(0);
  const pattern = parts.map(({ type, value }) => PARTS[type] ?? (type === 'literal' ? value : '')).join('');
  const locale: Intl.Locale & WithWeek = new Intl.Locale(tag);
  // Monday is 1 and Sunday 7 there.
  const first = (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay ?? 1;
  return { pattern: pattern.trim(), firstDayOfWeek: (first % 7) as DayLocale['firstDayOfWeek'] };
}
