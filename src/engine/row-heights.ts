import { shownAt } from '../core/sheet/shown-cell';
import type { Filter, RowHeights } from '../protocol/engine-messages';
import type { Replica } from './replica';

/** Rows of another height than others, and those that a filter keeps out of view, as runs from top to bottom. */
export function rowHeights(replica: Replica, filter: Filter | null): RowHeights {
  const { sheet } = replica;
  const heights = new Map<number, number>();
  for (const [slot, { heightPx }] of sheet.rowsWithAbout()) {
    const position = heightPx === undefined ? -1 : sheet.positionOf(slot);
    if (position >= 0) heights.set(position, heightPx!);
  }
  if (filter) {
    const isIn = filterTest(replica, filter);
    sheet.order.forEach((slot, position) => {
      if (sheet.roleAt(slot) === 'record' && !isIn(slot)) heights.set(position, 0);
    });
  }
  const runs: [number, number, number][] = [];
  for (const [position, heightPx] of [...heights].sort(([a], [b]) => a - b)) {
    const last = runs.at(-1);
    if (last && last[1] === position - 1 && last[2] === heightPx) last[1] = position;
    else runs.push([position, position, heightPx]);
  }
  return runs;
}

/** Whether a record is in view. A rule or field that is gone filters nothing. */
function filterTest({ sheet, evaluation }: Replica, filter: Filter): (slot: number) => boolean {
  if ('rule' in filter) {
    const running = evaluation.running.find(({ rule }) => rule.id === filter.rule);
    return (slot) => !running || running.read.some(({ column }) => running.shows(column, slot));
  }
  const texts = new Set(filter.texts);
  return (slot) => filter.column >= sheet.fields.length || texts.has(shownAt(sheet, filter.column, slot));
}
