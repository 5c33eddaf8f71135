import { Button } from '@mantine/core';
import { cellAddress } from '../../core/sheet/address';
import type { LostCell } from '../../protocol/sheet-view';
import classes from './SheetScreen.module.css';
import { useSession, useSessionState } from './use-session';

/**
 * Lost updates: this person's entries that somebody overwrote at the same time. The last one stands, and the own one
 * can be restored.
 */
export function LostEntries() {
  const session = useSession();
  const lost = useSessionState((state) => state.lost);
  return lost.map((entry) => (
    <div key={`${entry.cell.row} ${entry.cell.field}`} className={classes.message} role="alert">
      <span>{lostWords(entry)}</span>
      <Button size="compact-sm" onClick={() => session.settleLost(entry, 'mine')}>
        Restore mine
      </Button>
      <Button size="compact-sm" variant="default" onClick={() => session.settleLost(entry, 'theirs')}>
        Keep theirs
      </Button>
    </div>
  ));
}

const lostWords = ({ column, position, mine, theirs, by }: LostCell): string => {
  const put = theirs === '' ? 'emptied' : `entered “${short(theirs)}” in`;
  return `${by ?? 'Somebody'} ${put} ${cellAddress(column, position)} at the same time as you entered “${short(mine)}”. The later entry stands.`;
};

const short = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
