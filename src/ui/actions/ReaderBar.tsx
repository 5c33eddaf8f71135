import { Button } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp, IconSearch } from '@tabler/icons-react';
import type { SheetRole } from '../../core/sharing/role';
import { useSession, useSessionState } from '../sheet/use-session';
import { Act } from './Act';
import classes from './ActionBar.module.css';

interface Props {
  readonly role: SheetRole;
  /** For fillers: whether the records stand one under the other, and how that is changed. */
  readonly list: { readonly isList: boolean; readonly onList: (isList: boolean) => void };
}

/** What those can do who get no rules. */
export function ReaderBar({ role, list: { isList, onList } }: Props) {
  const session = useSession();
  const undo = useSessionState((state) => state.undo);
  const redo = useSessionState((state) => state.redo);
  return (
    <div className={classes.bar} role="toolbar" aria-label="Actions">
      {role === 'filler' && (
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
          <span className={classes.gap} />
        </>
      )}
      {!isList && (
        <Button
          variant="subtle"
          color="ink"
          size="compact-sm"
          leftSection={<IconSearch size={15} stroke={1.5} />}
          onClick={() => session.openPanel('find')}
        >
          Find
        </Button>
      )}
      {role === 'filler' && (
        <Button variant="subtle" color="ink" size="compact-sm" onClick={() => onList(!isList)}>
          {isList ? 'Show the sheet' : 'Show as a list'}
        </Button>
      )}
      {role === 'filler' && !isList && <span className={classes.hint}>Type where a line stands at the left of a cell.</span>}
    </div>
  );
}
