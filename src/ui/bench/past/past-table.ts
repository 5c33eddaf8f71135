import { writeCsv } from '../../../core/exchange/csv/write-csv';
import type { PastRow } from '../../../protocol/rule-past';
import type { Texts } from '../../../texts/texts';

/** The times that cells were found, as separated values (RFC 4180). */
export function pastTable(rows: readonly PastRow[], t: Texts<'past'>): string {
  const header = [t('record'), t('field'), t('outcome'), t('entered'), t('left'), t('daysColumn')];
  const body = rows.map(({ record, label, outcome, entered, left, days }) => [
    record,
    label,
    outcome,
    entered,
    left,
    String(days),
  ]);
  return writeCsv({ rows: [header, ...body], width: header.length });
}
