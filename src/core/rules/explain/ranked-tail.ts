import { itemAt } from '../../values/item-at';
import { shownAt } from '../../sheet/shown-cell';
import type { Evaluation } from '../evaluate/evaluation';
import { recordName } from './record-name';

/** A cell near the edge of what a rule picks out. */
export interface RankedCell {
  /** Its place among all numbers that are read, 1 for the first. */
  readonly place: number;
  readonly label: string;
  readonly shown: string;
  readonly column: number;
  readonly position: number;
  readonly isIn: boolean;
}

interface Candidate {
  readonly number: number;
  readonly column: number;
  readonly slot: number;
}

/**
 * The last cells that a rule over the greatest (`falling`) or least (`rising`) numbers takes, and the first that it
 * leaves, in order; among equal numbers those higher up come first. Cost: a look at each number that is read.
 */
export function rankedTail(
  { sheet, activeRules }: Evaluation,
  id: string,
  { order, within, beyond }: { readonly order: 'falling' | 'rising'; readonly within: number; readonly beyond: number },
): RankedCell[] {
  const found = activeRules.find(({ rule }) => rule.id === id);
  if (!found) return [];
  const sign = order === 'falling' ? -1 : 1;
  const isBefore = (one: Candidate, other: Candidate): boolean => sign * (one.number - other.number) < 0;
  const last: Candidate[] = [];
  const next: Candidate[] = [];
  let taken = 0;
  for (const { column, slots } of found.read) {
    const store = sheet.column(column);
    for (const slot of sheet.order) {
      const number = store.numberAt(slot);
      if (!slots.has(slot) || Number.isNaN(number)) continue;
      const candidate = { number, column, slot };
      if (found.outcomeAt(column, slot) >= 0) {
        taken++;
        insert(last, candidate, isBefore);
        if (last.length > within) last.shift();
      } else {
        insert(next, candidate, isBefore);
        if (next.length > beyond) next.pop();
      }
    }
  }
  const read = new Set(found.read.map(({ column }) => column));
  return [...last, ...next].map(({ column, slot }, at) => ({
    place: taken - last.length + at + 1,
    label: recordName(sheet, slot, read),
    shown: shownAt(sheet, column, slot),
    column,
    position: sheet.positionOf(slot),
    isIn: at < last.length,
  }));
}

/** Inserts a cell into an ordered list, behind its equals. */
function insert(cells: Candidate[], cell: Candidate, isBefore: (one: Candidate, other: Candidate) => boolean): void {
  let at = cells.length;
  while (at > 0 && isBefore(cell, itemAt(cells, at - 1))) at--;
  cells.splice(at, 0, cell);
}
