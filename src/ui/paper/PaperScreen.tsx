'use client';

import { Button } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { fileNameOf } from '../../core/exchange/export-formats';
import { isMaker, type SheetRole } from '../../core/sharing/role';
import type { SheetId } from '../../core/sheet/ids';
import { meaningsOf } from '../../engine/view/meanings-of';
import { useMoments } from '../use-moments';
import { saveFile } from '../files/save-file';
import { ReaderLegend } from '../legend/ReaderLegend';
import { Session } from '../sheet/session';
import { SessionContext, useSession, useSessionState } from '../sheet/use-session';
import { tokenVariables } from '../theme/tokens';
import classes from './Paper.module.css';
import { Difference } from './Difference';
import { pageFile } from './page-file';
import { PaperTable } from './PaperTable';
import { readFilter } from './read-filter';
import { rowsOnPaper } from './rows-on-paper';

interface Props {
  readonly id: SheetId;
  readonly name: string;
  readonly role: SheetRole;
  /** A change after which the sheet is shown, and when it was made (milliseconds of the Unix epoch). */
  readonly at?: { readonly sequence: number; readonly moment: number } | undefined;
}

/** A sheet with its legend as a page of its own, to be printed or saved. It is always light, as paper is. */
export function PaperScreen({ id, name, role, at }: Props) {
  const tSheet = useTranslations('sheet');
  const [session] = useState(
    () => new Session(id, tSheet, { at: at?.sequence, ...(isMaker(role) ? {} : { reads: {} }) }),
  );
  useEffect(() => session.start('light'), [session]);
  return (
    <SessionContext value={session}>
      <Paper name={name} at={at} />
    </SessionContext>
  );
}

function Paper({ name, at }: Pick<Props, 'name' | 'at'>) {
  const t = useTranslations('paper');
  const moment = useMoments();
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const window = useSessionState((state) => state.window);
  const legend = useSessionState((state) => state.legend);
  const meanings = useSessionState((state) => state.meanings);
  const failure = useSessionState((state) => state.failure);
  const article = useRef<HTMLElement>(null);
  const isOpen = frame !== null;
  useEffect(() => {
    if (isOpen) session.filterBy(readFilter(location.search));
  }, [session, isOpen]);
  const rows = frame && rowsOnPaper(frame);
  const [last, columns] = [rows?.last ?? -1, frame?.fields.length ?? 0];
  useEffect(() => {
    if (columns > 0) session.setViewport({ left: 0, top: 0, right: columns - 1, bottom: last });
  }, [session, columns, last]);

  const save = () => {
    saveFile(new Blob([pageFile(article.current!, name)], { type: 'text/html' }), fileNameOf(name, 'html'));
  };

  if (failure !== null) return <p role="alert">{failure}</p>;
  const isReady = window !== null && window.area.top === 0 && window.area.bottom >= last;
  return (
    <div className={classes.screen} style={tokenVariables('light')}>
      <div className={classes.acts}>
        <Button disabled={!isReady} onClick={() => print()}>
          {t('print')}
        </Button>
        <Button variant="default" disabled={!isReady} onClick={save}>
          {t('saveAsAPage')}
        </Button>
      </div>
      {rows && isReady ? (
        <article ref={article} className={classes.paper}>
          <h1 className={classes.name}>{name}</h1>
          {at && <p className={classes.cut}>{t('asWasMomentIts', { moment: moment(at.moment) })}</p>}
          {at && <Difference sequence={at.sequence} />}
          {rows.left > 0 && (
            <p className={classes.cut}>{t('firstCountRowsView', { count: rows.count, left: rows.left })}</p>
          )}
          <section
            aria-label={t('legend')}
            className={classes.legend}
            hidden={!session.isMaker && meanings.length === 0}
          >
            <ReaderLegend meanings={session.isMaker ? meaningsOf(legend, frame.fields) : meanings} />
          </section>
          <PaperTable frame={frame} window={window} />
        </article>
      ) : (
        <p role="status">{t('gettingThePageReady')}</p>
      )}
    </div>
  );
}
