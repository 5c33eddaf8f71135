import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { useSession, useSessionState } from '../sheet/use-session';
import { Act } from './Act';

/** Undo and redo. */
export function UndoActs() {
  const session = useSession();
  const undo = useSessionState((state) => state.undo);
  const redo = useSessionState((state) => state.redo);
  return (
    <>
      <Act
        label={undo === null ? 'Undo' : `Undo: ${undo}`}
        name="Undo"
        icon={IconArrowBackUp}
        disabled={undo === null}
        onAct={() => session.undo()}
      />
      <Act
        label={redo === null ? 'Redo' : `Redo: ${redo}`}
        name="Redo"
        icon={IconArrowForwardUp}
        disabled={redo === null}
        onAct={() => session.redo()}
      />
    </>
  );
}
