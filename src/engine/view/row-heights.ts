import type { RowId, RuleId } from '../../core/sheet/ids';
import { lastBeneath } from '../../core/sheet/layout/levels';
import { shownAt } from '../../core/sheet/shown-cell';
import { numberOf } from '../../core/values/cell-value';
import { foldText } from '../../core/values/fold-text';
import { readInput } from '../../core/values/read-input';
import type { Filter, RowHeights } from '../../protocol/sheet-view';
import type { Replica } from '../replica/replica';

/** Rows that a reader filters or folds away. */
export interface OutOfView {
  readonly filter: Filter | null;
  /** Rows whose rows beneath are folded away. */
  readonly folded: ReadonlySet<RowId>;
}

/** Rows of another height than others, and those that a reader keeps out of view, as runs from top to bottom. */
export function rowHeights(replica: Replica, { filter, folded }: OutOfView): RowHeights {
  const { sheet } = replica;
  const heights = new Map<number, number>();
  for (const [slot, { heightPx }] of sheet.rowsWithAbout()) {
    const position = sheet.positionOf(slot);
    if (heightPx !== undefined && position >= 0) heights.set(position, heightPx);
  }
  if (filter) {
    const isIn = filterTest(replica, filter);
    sheet.order.forEach((slot, position) => {
      if (sheet.roleAt(slot) === 'record' && !isIn(slot)) heights.set(position, 0);
    });
  }
  for (const id of folded) {
    const slot = sheet.findSlot(id);
    if (slot === undefined) continue;
    const position = sheet.positionOf(slot);
    for (let at = position + 1; at <= lastBeneath(sheet, position); at++) heights.set(at, 0);
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
function filterTest(replica: Replica, filter: Filter): (slot: number) => boolean {
  const { sheet } = replica;
  if ('rule' in filter) return paintedBy(replica, filter.rule) ?? (() => true);
  const column = sheet.findColumn(filter.field);
  if (column === undefined) return () => true;
  if ('texts' in filter) {
    const texts = new Set(filter.texts);
    return (slot) => texts.has(shownAt(sheet, column, slot));
  }
  if (filter.is === 'contains') {
    const wanted = foldText(filter.value);
    return (slot) => foldText(shownAt(sheet, column, slot)).includes(wanted);
  }
  const limit = numberOf(readInput(filter.value, sheet.settings).value);
  const store = sheet.column(column);
  if (Number.isNaN(limit)) return () => false;
  return (slot) => {
    const number = numberOf(store.valueAt(slot));
    return filter.is === 'at least' ? number >= limit : number <= limit;
  };
}

/** Whether a rule gives a record a look in one of the fields that it reads; undefined where there is no such rule. */
export function paintedBy({ evaluation, given, sheet }: Replica, id: RuleId): ((slot: number) => boolean) | undefined {
  if (given) return (slot) => sheet.fields.some((_, column) => given.isMadeBy(id, column, slot));
  const found = evaluation.activeRules.find(({ rule }) => rule.id === id);
  return found && ((slot) => found.read.some(({ column }) => found.shows(column, slot)));
}
