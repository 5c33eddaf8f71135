import { Button } from '@mantine/core';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import type { Texts } from '../../texts/texts';
import type { SheetId } from '../../core/sheet/ids';
import type { HistoryEntry } from '../../protocol/sheet-history';
import { useMoments } from '../use-moments';
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
  const t = useTranslations('history');
  const moment = useMoments();
  const { sequence, at, author, by, names, says, cells } = entry;
  const history = sheetPageUrl(sheet, 'history');
  return (
    <li className={classes.item}>
      <div className={classes.when}>
        <time dateTime={new Date(at).toISOString()} suppressHydrationWarning>
          {moment(at)}
        </time>
        <Link href={withQuery(history, { by })} title={t('onlyChangesByAuthor', { author })}>
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
              {t('labelOfRecord', { label: cell.label, record: cell.record })}
            </Link>
            : <del>{shown(cell.before, t)}</del> <ins>{shown(cell.after, t)}</ins>
          </p>
        ))}
      </div>
      <HistoryActs sheet={sheet} sequence={sequence} onTakeBack={onTakeBack} onName={onName} />
    </li>
  );
}

type ActsProps = Pick<Props, 'sheet' | 'onTakeBack' | 'onName'> & { readonly sequence: number };

function HistoryActs({ sheet, sequence, onTakeBack, onName }: ActsProps) {
  const t = useTranslations('history');
  const looks = { size: 'compact-sm', variant: 'default' };
  return (
    <div className={classes.acts}>
      <Button component="a" {...looks} href={withQuery(sheetPageUrl(sheet, 'paper'), { at: sequence })} target="_blank">
        {t('viewThisVersion')}
      </Button>
      <Button {...looks} onClick={onName} aria-label={t('nameVersionAfterChange', { sequence })}>
        {t('name')}
      </Button>
      <Button {...looks} onClick={onTakeBack} aria-label={t('undoChangeSequence', { sequence })}>
        {t('undo')}
      </Button>
    </div>
  );
}

/** The content of a cell, in a few words. */
const shown = (input: string, t: Texts<'history'>): string =>
  input === ''
    ? t('blank')
    : input.startsWith('=')
      ? t('aFormula')
      : input.length > 60
        ? `${input.slice(0, 60)}…`
        : input;
