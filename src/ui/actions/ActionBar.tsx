import { Button } from '@mantine/core';
import { IconArrowBackUp, IconArrowForwardUp, IconKeyboard, IconPaint, IconSearch } from '@tabler/icons-react';
import { useSession, useSessionState } from '../sheet/use-session';
import { Act } from './Act';
import classes from './ActionBar.module.css';
import { FieldMenu } from './FieldMenu';
import { MARKS } from './marks';
import { NumberMenu } from './NumberMenu';
import { OrderMenu } from './OrderMenu';
import { RowMenu } from './RowMenu';

/** What can be done to the selected cells, their rows and their fields: one line, that scrolls sideways on a phone. */
export function ActionBar() {
  const session = useSession();
  const undo = useSessionState((state) => state.undo);
  const redo = useSessionState((state) => state.redo);
  const panel = useSessionState((state) => state.panel);
  const style = useSessionState((state) => state.cell?.style);
  return (
    <div className={classes.bar} role="toolbar" aria-label="Actions">
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
      {MARKS.map(({ mark, label, icon }) => (
        <Act key={mark} label={label} icon={icon} isOn={style?.[mark] === true} onAct={() => session.actions.toggleMark(mark)} />
      ))}
      <Button
        variant={panel === 'style' ? 'light' : 'subtle'}
        color="ink"
        size="compact-sm"
        aria-expanded={panel === 'style'}
        leftSection={<IconPaint size={15} stroke={1.5} />}
        onClick={() => session.openPanel(panel === 'style' ? null : 'style')}
      >
        Style
      </Button>
      <NumberMenu />
      <span className={classes.gap} />
      <RowMenu />
      <FieldMenu />
      <OrderMenu />
      <Button
        variant="subtle"
        color="ink"
        size="compact-sm"
        leftSection={<IconSearch size={15} stroke={1.5} />}
        onClick={() => session.openPanel('find')}
      >
        Find
      </Button>
      <Act label="Keys" icon={IconKeyboard} onAct={() => session.openPanel('keys')} />
    </div>
  );
}
