import type { DateOrder } from '../values/dates/read-date';

export interface SheetSettings {
  readonly dates?: DateOrder;
  /** Time zone (IANA name) that says which day is today; UTC by default. */
  readonly zone?: string;
  /** First day of the week, 0 for Monday (default). */
  readonly firstWeekday?: number;
}
