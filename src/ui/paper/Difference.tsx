import { Button } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import type { CellState, SheetDifference } from '../../core/rules/sheet-difference';
import { counted } from '../counted';
import { useSession } from '../sheet/use-session';
import classes from './Paper.module.css';

/** What is different now from the sheet as it was: values, looks, and records that came and went. */
export function Difference({ sequence }: { readonly sequence: number }) {
  const session = useSession();
  const [found, setFound] = useState<SheetDifference | null>(null);
  const [isBack, setBack] = useState(false);
  const [error, setError] = useState<string | null>(null);
  const ask = () => {
    setError(null);
    session.ask({ kind: 'ask-difference' }).then(setFound, (failed: Error) => setError(failed.message));
  };
  if (!found)
    return (
      <p>
        <Button size="compact-sm" variant="default" onClick={ask}>
          Show what is different now
        </Button>
        {error && <span role="alert"> {error}</span>}
      </p>
    );
  const bringBack = async () => {
    const answer = await fetch(`/api/sheets/${encodeURIComponent(session.sheet)}/history/${sequence}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id: nanoid(), what: 'sheet' }),
    });
    if (!answer.ok) return setError(((await answer.json()) as { refused: string }).refused);
    setBack(true);
    ask();
  };
  const { cells, added, removed, isCut } = found;
  return (
    <section aria-label="What is different now" className={classes.difference}>
      <h2>
        {cells.length + added.length + removed.length === 0
          ? 'Nothing is different now'
          : `Different now: ${counted(cells.length, 'cell')}${isCut ? ' and more' : ''}, ${counted(added.length, 'row')} added, ${counted(removed.length, 'row')} removed`}
      </h2>
      {cells.length > 0 && (
        <table className={classes.table}>
          <thead>
            <tr>
              <th scope="col">Record</th>
              <th scope="col">Field</th>
              <th scope="col">Then</th>
              <th scope="col">Now</th>
            </tr>
          </thead>
          <tbody>
            {cells.map((cell) => (
              <tr key={`${cell.row} ${cell.field}`}>
                <td>{cell.record}</td>
                <td>{cell.label}</td>
                <td>{stateWords(cell.before)}</td>
                <td>{stateWords(cell.after)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {isBack ? (
        <p role="status">The sheet is as it was then, by a new change that can be taken back like any other.</p>
      ) : (
        <Button size="compact-sm" variant="default" my={8} onClick={() => void bringBack().catch(() => setError(UNREACHABLE))}>
          Bring the whole sheet back to this
        </Button>
      )}
      {error && <p role="alert">{error}</p>}
      {added.length > 0 && <p>Added: {namesOf(added)}</p>}
      {removed.length > 0 && <p>Removed: {namesOf(removed)}</p>}
    </section>
  );
}

const UNREACHABLE = 'The server cannot be reached. Try again in a moment.';

const stateWords = ({ shown, rules }: CellState): string => `${shown || 'blank'}${rules.length ? ` (${rules.join(', ')})` : ''}`;

const MOST_NAMES = 20;
const namesOf = (names: readonly string[]): string =>
  names.slice(0, MOST_NAMES).join(', ') + (names.length > MOST_NAMES ? ` and ${names.length - MOST_NAMES} more` : '');
