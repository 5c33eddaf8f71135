import type { SheetId } from '../../core/sheet/ids';

const last = new Map<SheetId, Promise<unknown>>();

/**
 * Does things to a sheet one after another within this process. The sheet's head would keep the order by itself; but
 * who waits for it there holds a connection meanwhile, and all connections could be waiting.
 */
export function inTurnOf<T>(sheet: SheetId, work: () => Promise<T>): Promise<T> {
  const turn = (last.get(sheet) ?? Promise.resolve()).then(work, work);
  last.set(sheet, turn);
  const forget = () => last.get(sheet) === turn && last.delete(sheet);
  turn.then(forget, forget);
  return turn;
}
