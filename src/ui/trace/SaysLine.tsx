import type { ActiveCell } from '../../protocol/engine-messages';
import classes from './SaysLine.module.css';

/** For readers without rules: the words for the selected cell, or why it is locked. */
export function SaysLine({ cell }: { readonly cell: ActiveCell }) {
  const says = cell.says.join(' · ');
  return (
    <span className={classes.says} role="status">
      {says !== '' && <b>{says[0]!.toUpperCase() + says.slice(1)}</b>}
      {says === '' && (cell.lock === null ? 'Yours to fill in' : '')}
    </span>
  );
}
