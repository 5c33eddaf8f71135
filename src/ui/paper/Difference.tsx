import { Button, TextInput } from '@mantine/core';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import { sheetUrl } from '../../protocol/sheet-url';
import type { CellState, SheetDifference } from '../../core/rules/explain/sheet-difference';
import type { FieldId, RowId } from '../../core/sheet/ids';
import { counted } from '../counted';
import { sendJson } from '../../engine/link/send-json';
import { useSession } from '../sheet/use-session';
import classes from './Paper.module.css';

/** The diff between a snapshot and now: values, looks, and added and removed records. */
export function Difference({ sequence }: { readonly sequence: number }) {
  const session = useSession();
  const [found, setFound] = useState<SheetDifference | null>(null);
  const [isBack, setBack] = useState(false);
  const [error, setError] = useState<string | null>(null);
  /** The change after which the other sheet is taken; empty for now. */
  const [to, setTo] = useState('');
  const other = to.trim() === '' ? undefined : Number(to);
  const ask = () => {
    setError(null);
    if (other !== undefined && !(Number.isInteger(other) && other >= 0))
      return setError('Changes are numbered 1, 2, 3 and so on; 0 is the sheet as it was made.');
    session
      .ask({ kind: 'ask-difference', ...(other === undefined ? {} : { to: other }) })
      .then(setFound, (failed: Error) => setError(failed.message));
  };
  if (!found)
    return (
      <div className={classes.compare}>
        <Button size="compact-sm" variant="default" onClick={ask}>
          Show what is different {other === undefined ? 'now' : `after change ${other}`}
        </Button>
        <TextInput
          size="xs"
          aria-label="Compare with the sheet after change"
          placeholder="or after change no."
          inputMode="numeric"
          value={to}
          onChange={(event) => setTo(event.currentTarget.value)}
        />
        {error && <span role="alert"> {error}</span>}
      </div>
    );
  const path = sheetUrl(session.sheet, `history/${sequence}`);
  /** One cell goes back to what it held then; the others stay. */
  const bringCellBack = async ({ row, field }: { readonly row: RowId; readonly field: FieldId }) => {
    const sent = await sendJson(path, { body: { id: nanoid(), what: 'cells', cells: [{ row, field }] } });
    if ('refused' in sent) setError(sent.refused);
    else ask();
  };
  const bringBack = async () => {
    const sent = await sendJson(path, { body: { id: nanoid(), what: 'sheet' } });
    if ('refused' in sent) return setError(sent.refused);
    setBack(true);
    ask();
  };
  const { cells, added, removed, isCut } = found;
  const when = other === undefined ? 'now' : `after change ${other}`;
  return (
    <section
      aria-label={other === undefined ? 'What is different now' : `What is different after change ${other}`}
      className={classes.difference}
    >
      <h2>
        {cells.length + added.length + removed.length === 0
          ? `Nothing is different ${when}`
          : `Different ${when}: ${counted(cells.length, 'cell')}${isCut ? ' and more' : ''}, ${counted(added.length, 'row')} added, ${counted(removed.length, 'row')} removed`}
      </h2>
      {cells.length > 0 && (
        <table className={classes.table}>
          <thead>
            <tr>
              <th scope="col">Record</th>
              <th scope="col">Field</th>
              <th scope="col">Then</th>
              <th scope="col">{other === undefined ? 'Now' : `After change ${other}`}</th>
              {other === undefined && <td />}
            </tr>
          </thead>
          <tbody>
            {cells.map((cell) => (
              <tr key={`${cell.row} ${cell.field}`}>
                <td>{cell.record}</td>
                <td>{cell.label}</td>
                <td>{stateWords(cell.before)}</td>
                <td>{stateWords(cell.after)}</td>
                {other === undefined && (
                  <td>
                    {cell.before.shown !== cell.after.shown && (
                      <Button
                        size="compact-xs"
                        variant="default"
                        aria-label={`Bring ${cell.label} of ${cell.record} back`}
                        onClick={() => void bringCellBack(cell)}
                      >
                        Bring it back
                      </Button>
                    )}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {isBack ? (
        <p role="status">The sheet is as it was then, by a new change that can be taken back like any other.</p>
      ) : (
        <div className={classes.compare}>
          {other === undefined && (
            <Button size="compact-sm" variant="default" onClick={() => void bringBack()}>
              Bring the whole sheet back to this
            </Button>
          )}
          <Button size="compact-sm" variant="default" onClick={() => setFound(null)}>
            Compare with another moment
          </Button>
        </div>
      )}
      {error && <p role="alert">{error}</p>}
      {added.length > 0 && <p>Added: {namesOf(added)}</p>}
      {removed.length > 0 && <p>Removed: {namesOf(removed)}</p>}
    </section>
  );
}

const stateWords = ({ shown, rules }: CellState): string =>
  `${shown || 'blank'}${rules.length ? ` (${rules.join(', ')})` : ''}`;

const MAX_NAMES = 20;
const namesOf = (names: readonly string[]): string =>
  names.slice(0, MAX_NAMES).join(', ') + (names.length > MAX_NAMES ? ` and ${names.length - MAX_NAMES} more` : '');
