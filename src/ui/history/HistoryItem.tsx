import { Button } from '@mantine/core';
import Link from 'next/link';
import type { SheetId } from '../../core/sheet/ids';
import type { HistoryEntry } from '../../protocol/sheet-history';
import { momentWords } from '../moment-words';
import classes from './History.module.css';
import { sheetPageUrl } from '../../protocol/sheet-url';
import { withQuery } from '../../protocol/with-query';

interface Props {
  readonly sheet: SheetId;
  readonly entry: HistoryEntry;
  readonly onTakeBack: () => void;
  readonly onName: () => void;
}

/** One change: what it did, cell by cell where it entered some. */
export function HistoryItem({ sheet, entry, onTakeBack, onName }: Props) {
  const { sequence, at, author, by, names, says, cells } = entry;
  const history = sheetPageUrl(sheet, 'history');
  return (
    <li className={classes.item}>
      <div className={classes.when}>
        <time dateTime={new Date(at).toISOString()} suppressHydrationWarning>
          {momentWords(at)}
        </time>
        <Link href={withQuery(history, { by })} title={`Only changes by ${author}`}>
          {author}
        </Link>
      </div>
      <div>
        {names.map((name) => (
          <p key={name} className={classes.moment}>
            {name}
          </p>
        ))}
        <p className={classes.says}>{says.join(', ')}</p>
        {cells.map((cell) => (
          <p key={`${cell.row} ${cell.field}`} className={classes.cell}>
            <Link href={withQuery(history, { row: cell.row, field: cell.field })}>
              {cell.label} of {cell.record}
            </Link>
            : <del>{shown(cell.before)}</del> <ins>{shown(cell.after)}</ins>
          </p>
        ))}
      </div>
      <div className={classes.acts}>
        <Button
          component="a"
          size="compact-sm"
          variant="default"
          href={withQuery(sheetPageUrl(sheet, 'paper'), { at: sequence })}
          target="_blank"
        >
          View this version
        </Button>
        <Button
          size="compact-sm"
          variant="default"
          onClick={onName}
          aria-label={`Name the version after change ${sequence}`}
        >
          Name
        </Button>
        <Button size="compact-sm" variant="default" onClick={onTakeBack} aria-label={`Undo change ${sequence}`}>
          Undo
        </Button>
      </div>
    </li>
  );
}

/** The content of a cell, in a few words. */
const shown = (input: string): string =>
  input === '' ? 'blank' : input.startsWith('=') ? 'a formula' : input.length > 60 ? `${input.slice(0, 60)}…` : input;
