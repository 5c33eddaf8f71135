import { Button } from '@mantine/core';
import { IconCommand, IconHelp, IconPaint } from '@tabler/icons-react';
import { useTranslations } from 'use-intl';
import { useSession, useSessionState } from '../sheet/use-session';
import { Act } from './Act';
import classes from './ActionBar.module.css';
import { EditMenu } from './EditMenu';
import { FieldMenu } from './FieldMenu';
import { FindButton } from './find/FindButton';
import { MARKS } from './marks';
import { NumberMenu } from './NumberMenu';
import { OrderMenu } from './OrderMenu';
import { RowMenu } from './RowMenu';
import { UndoActs } from './UndoActs';

/** Actions on the selected cells, their rows and their fields: one line, which scrolls sideways on a phone. */
export function ActionBar() {
  const t = useTranslations('actions');
  const session = useSession();
  const panel = useSessionState((state) => state.panel);
  const style = useSessionState((state) => state.cell?.style);
  return (
    <div className={classes.bar} role="toolbar" aria-label={t('actions')}>
      <UndoActs />
      <EditMenu />
      <span className={classes.gap} />
      {MARKS.map(({ mark, label, icon }) => (
        <Act
          key={mark}
          label={t(label)}
          icon={icon}
          isOn={style?.[mark] === true}
          onAct={() => session.actions.toggleMark(mark)}
        />
      ))}
      <Button
        variant={panel === 'style' ? 'light' : 'subtle'}
        color="ink"
        size="compact-sm"
        aria-expanded={panel === 'style'}
        leftSection={<IconPaint size={15} stroke={1.5} />}
        onClick={() => session.openPanel(panel === 'style' ? null : 'style')}
      >
        {t('style')}
      </Button>
      <NumberMenu />
      <span className={classes.gap} />
      <RowMenu />
      <FieldMenu />
      <OrderMenu />
      <FindButton />
      <Act label={t('commandsCtrlK')} icon={IconCommand} onAct={() => session.openPanel('commands')} />
      <Act label={t('helpF1')} name={t('help')} icon={IconHelp} onAct={() => session.openHelp('')} />
    </div>
  );
}
