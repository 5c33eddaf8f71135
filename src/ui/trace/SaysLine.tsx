import { useTranslations } from 'use-intl';
import type { ActiveCell } from '../../protocol/sheet-view';
import type { Editing } from '../sheet/session-state';
import classes from './SaysLine.module.css';

interface Props {
  readonly cell: ActiveCell;
  readonly editing: Editing | null;
}

/**
 * For readers without rules: the words for the selected cell, or why it is locked. While another answer is typed the
 * last one's outcome says nothing of it.
 */
export function SaysLine({ cell, editing }: Props) {
  const t = useTranslations('trace');
  const says = editing !== null && editing.text !== cell.input ? '' : cell.says.join(' · ');
  return (
    <span className={classes.says} role="status">
      {says !== '' && <b>{says[0]!.toUpperCase() + says.slice(1)}</b>}
      {says === '' && (cell.lock === null ? t('yoursToFillIn') : '')}
    </span>
  );
}
