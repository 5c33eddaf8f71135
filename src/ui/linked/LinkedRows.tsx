import { Button } from '@mantine/core';
import { IconDatabase } from '@tabler/icons-react';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { WindowAsked } from '../../protocol/linked-table';
import { selectCell } from '../grid/engine/selection';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './LinkedRows.module.css';

/** Which rows of a linked table are here, and the way to others. */
export function LinkedRows() {
  const t = useTranslations('linked');
  const session = useSession();
  const linked = useSessionState((state) => state.frame?.linked) ?? null;
  const rowCount = useSessionState((state) => state.frame?.rowCount) ?? 0;
  const frozen = useSessionState((state) => state.frame?.frozenRows) ?? 0;
  const [isMoving, setMoving] = useState(false);
  if (!linked) return null;
  const { first, last, hasBefore, hasAfter, estimate } = linked;
  const show = async (window: WindowAsked) => {
    setMoving(true);
    // Where it fails, a message of the sheet says why, and the rows stay.
    await session.ask({ kind: 'show-rows', window }).catch(() => {});
    setMoving(false);
    session.show(selectCell({ column: 0, position: frozen }));
  };
  return (
    <nav className={classes.rows} data-help="linked" aria-label={t('rowsOfTheTable')} aria-busy={isMoving}>
      <IconDatabase size={16} stroke={1.5} aria-hidden />
      <span className={classes.says} title={t('tableAtHost', { table: linked.table, host: linked.host })}>
        {t('rowsHere', { table: linked.table, rows: rowCount - frozen })}
        {estimate > rowCount && ` ${t('ofAbout', { estimate })}`}
        {first && last && ` ${t('fromTo', { first: first.join(', '), last: last.join(', ') })}`}
      </span>
      <Button size="compact-sm" variant="default" disabled={isMoving || !hasBefore} onClick={() => void show({})}>
        {t('first')}
      </Button>
      <Button
        size="compact-sm"
        variant="default"
        disabled={isMoving || !hasBefore || !first}
        onClick={() => first && void show({ before: first })}
      >
        {t('previous')}
      </Button>
      <Button
        size="compact-sm"
        variant="default"
        disabled={isMoving || !hasAfter || !last}
        onClick={() => last && void show({ after: last })}
      >
        {t('next')}
      </Button>
    </nav>
  );
}
