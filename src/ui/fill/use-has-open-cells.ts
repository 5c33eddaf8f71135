import { useSyncExternalStore } from 'react';
import type { Session } from '../sheet/session';

/** False where the sheet has nothing to fill in: no field and no cell of it is open. True until it has come. */
export function useHasOpenCells(session: Session): boolean {
  const read = () => {
    const filling = session.get().frame?.filling;
    return filling === undefined || filling.open.length + filling.openCells.length > 0;
  };
  return useSyncExternalStore(session.subscribe, read, read);
}
