import { RunningRule } from '../../rules/evaluate/running-rule';
import type { Evaluation } from '../../rules/evaluate/evaluation';
import type { Rule } from '../../rules/shape/rule';
import type { FieldId } from '../../sheet/ids';
import type { Sheet } from '../../sheet/sheet';
import { TAG } from '../../values/cell-value';
import { spansOfTime } from './spans-of-time';

/** The records of one span of time, and how many of them a rule paints. */
export interface DatedBin {
  readonly from: number;
  readonly to: number;
  readonly painted: number;
  readonly records: number;
}

/** Fields of which most records that have something hold a date. */
export function dateFields(sheet: Sheet): FieldId[] {
  const records = sheet.slotsWithRoles(['record']);
  return sheet.fields.flatMap(({ id }, column) => {
    const { tags } = sheet.column(column);
    let [dates, filled] = [0, 0];
    records.forEach((slot) => {
      if (tags[slot] === TAG.date) dates++;
      if (tags[slot] !== TAG.blank) filled++;
    });
    return dates > filled / 2 ? [id] : [];
  });
}

/**
 * How many records a rule paints, by a date of theirs: what it would have found had each been looked at on its day.
 * Records without a date are left out. Empty where there is none, or the rule cannot work. Cost: the rule, and a pass.
 */
export function paintedByDate({ sheet, world }: Evaluation, rule: Rule, field: FieldId): DatedBin[] {
  const column = sheet.findColumn(field);
  const running = new RunningRule({ ...rule, on: true }, world);
  if (column === undefined || running.problem) return [];
  const dates = sheet.column(column);
  const found: { readonly day: number; readonly isPainted: boolean }[] = [];
  sheet.slotsWithRoles(['record']).forEach((slot) => {
    if (dates.tags[slot] !== TAG.date) return;
    const isPainted = running.read.some((each) => running.shows(each.column, slot));
    found.push({ day: dates.numberAt(slot), isPainted });
  });
  const days = found.map(({ day }) => day);
  const least = days.reduce((one, other) => Math.min(one, other), Infinity);
  const greatest = days.reduce((one, other) => Math.max(one, other), -Infinity);
  if (found.length === 0) return [];
  const spans = spansOfTime(least, greatest + 1);
  const bins = spans.edges.map((from) => ({ from, to: from + spans.width, painted: 0, records: 0 }));
  for (const { day, isPainted } of found) {
    const bin = bins[spans.at(day)];
    if (!bin) continue;
    bin.records++;
    if (isPainted) bin.painted++;
  }
  return bins;
}
