import type { When } from '../../rules/kinds/registry';

/** The periods of ISO/IEC 29500-1, 18.18.82, as ours. */
export const PERIODS: Readonly<Record<string, Extract<When, { kind: 'date' }>['is']>> = {
  today: 'today',
  yesterday: 'yesterday',
  tomorrow: 'tomorrow',
  last7Days: { last: 7, unit: 'day' },
  thisWeek: { this: 'week' },
  lastWeek: { previous: 'week' },
  nextWeek: { following: 'week' },
  thisMonth: { this: 'month' },
  lastMonth: { previous: 'month' },
  nextMonth: { following: 'month' },
};
