import { IconArrowBackUp, IconArrowForwardUp } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { useSession, useSessionState } from '../sheet/use-session';
import { Act } from './Act';

/** Undo and redo. */
export function UndoActs() {
  const t = useTranslations('actions');
  const session = useSession();
  const undo = useSessionState((state) => state.undo);
  const redo = useSessionState((state) => state.redo);
  return (
    <>
      <Act
        label={undo === null ? t('undo') : t('undoUndo', { undo })}
        name={t('undo')}
        icon={IconArrowBackUp}
        disabled={undo === null}
        onAct={() => session.undo()}
      />
      <Act
        label={redo === null ? t('redo') : t('redoRedo', { redo })}
        name={t('redo')}
        icon={IconArrowForwardUp}
        disabled={redo === null}
        onAct={() => session.redo()}
      />
    </>
  );
}
