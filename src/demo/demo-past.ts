import { readDate } from '../core/values/dates/read-date';
import type { NewSheet } from '../server/sheets/create-sheet';
import { withPast } from './with-past';

/** Who works on the demo's sheets beside its owner: they are known by name alone. */
const INES = 'Ines Calder';
const EMEKA = 'Emeka Okoro';
const LOGGER = 'Field logger';
const MARA = 'Mara Quillfeather';

/** Weeks whose readings came in one after another. */
const WEEKS = 4;

interface Moment {
  readonly nowMs: number;
  /** In days since 1899-12-30. */
  readonly today: number;
}

/** The readings of the last weeks as the logger sent them, and what was corrected by hand. */
export function stationPast(contents: NewSheet, { nowMs, today }: Moment): NewSheet {
  const ageOf = (day = ''): number => today - (readDate(day) ?? 0);
  const recent = contents.rows.filter(({ role, cells }) => role === 'record' && ageOf(cells.day) < 7 * WEEKS);
  // Where a probe was read wrongly at first.
  const misread = recent.filter(({ cells }) => Number(cells.oxygen) >= 8.5).filter((_, at) => at % 6 === 2);
  return withPast(contents, nowMs, {
    arrivals: {
      by: LOGGER,
      daysAgo: (row) => (recent.includes(row) ? ageOf(row.cells.day) + 0.3 : null),
    },
    corrections: misread.map(({ id, cells }, at) => ({
      row: id,
      field: 'oxygen',
      was: Math.min(6.4, Number(cells.oxygen) - 4.3).toFixed(1),
      by: at % 2 ? EMEKA : INES,
      // Some hours after it came, or the next morning.
      daysAgo: Math.max(0.05, ageOf(cells.day) - 0.2 - 0.07 * at),
    })),
    rules: [{ id: 'low-oxygen', was: { kind: 'compare', is: '<', to: 6 }, by: MARA, daysAgo: 25.4 }],
  });
}

/** Probes that changed hands and were calibrated, and stock that was used. */
export const kitPast = (contents: NewSheet, { nowMs }: Moment): NewSheet =>
  withPast(contents, nowMs, {
    corrections: [
      { row: 'r12', field: 'stock', was: '32', by: INES, daysAgo: 16.4 },
      { row: 'r14', field: 'stock', was: '7', by: EMEKA, daysAgo: 9.6 },
      { row: 'r5', field: 'battery', was: '41%', by: MARA, daysAgo: 6.2 },
      { row: 'r2', field: 'holder', was: 'store', by: INES, daysAgo: 5.5 },
      { row: 'r15', field: 'stock', was: '60', by: EMEKA, daysAgo: 1.3 },
    ],
  });

/** Hours that were entered month by month, and two that were corrected. */
export const hoursPast = (contents: NewSheet, { nowMs }: Moment): NewSheet =>
  withPast(contents, nowMs, {
    corrections: contents.rows
      .filter(({ role, cells }) => role === 'record' && cells.nov !== undefined)
      .slice(0, 12)
      .map(({ id }, at) => ({
        row: id,
        field: 'nov',
        was: at % 5 === 0 ? '4' : '',
        by: at % 2 ? INES : EMEKA,
        daysAgo: 12.3 - 0.9 * at,
      })),
  });
