import { findCells, type FindQuery } from '../../core/edit/find';
import type { CellPosition } from '../../core/sheet/cell-position';
import type { Replica } from '../replica/replica';

/** Matches that are sent at once. */
const MAX_FOUND = 10_000;

/** The cells that hold what is wanted, where a rule is asked for among those that it paints. */
export function findIn(replica: Replica, wanted: FindQuery): CellPosition[] {
  const { painted } = wanted;
  const running = replica.evaluation.activeRules.find(({ rule }) => rule.id === painted);
  const shows = painted === undefined ? undefined : (replica.shownBy(painted) ?? (() => false));
  const isPainted =
    shows && ((column: number, slot: number): boolean => (running?.painted.has(column) ?? true) && shows(column, slot));
  return findCells(replica.sheet, wanted, isPainted).slice(0, MAX_FOUND);
}
