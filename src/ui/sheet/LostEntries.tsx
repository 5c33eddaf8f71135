import { Button } from '@mantine/core';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
import { cellAddress } from '../../core/sheet/address';
import type { LostCell } from '../../protocol/sheet-view';
import classes from './SheetScreen.module.css';
import { useSession, useSessionState } from './use-session';

/**
 * Lost updates: this person's entries that somebody overwrote at the same time. The last one stands, and the own one
 * can be restored.
 */
export function LostEntries() {
  const t = useTranslations('sheet');
  const session = useSession();
  const lost = useSessionState((state) => state.lost);
  return lost.map((entry) => (
    <div key={`${entry.cell.row} ${entry.cell.field}`} className={classes.message} role="alert">
      <span>{lostWords(entry, t)}</span>
      <Button size="compact-sm" onClick={() => session.settleLost(entry, 'mine')}>
        {t('restoreMine')}
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => session.settleLost(entry, 'theirs')}>
        {t('keepTheirs')}
      </Button>
    </div>
  ));
}

const lostWords = ({ column, position, mine, theirs, by }: LostCell, t: Texts<'sheet'>): string =>
  t('whoIsEmptiedEnteredTheirs', {
    who: by ?? t('somebody'),
    isEmptied: String(theirs === ''),
    theirs: short(theirs),
    mine: short(mine),
    cell: cellAddress(column, position),
  });

const short = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
