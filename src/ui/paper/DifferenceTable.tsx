import { Button } from '@mantine/core';
import { useTranslations } from 'use-intl';
import type { CellDifference, CellState } from '../../core/rules/explain/sheet-difference';
import classes from './Paper.module.css';

interface Props {
  readonly cells: readonly CellDifference[];
  /** The heading of what the cells hold at the other moment. */
  readonly after: string;
  /** Brings one cell back to what it held then; absent where that is not offered. */
  readonly onBringBack?: ((cell: CellDifference) => void) | undefined;
}

/** The cells that differ, each as it was then and as it is at the other moment. */
export const DifferenceTable = ({ cells, after, onBringBack }: Props) => {
  const t = useTranslations('paper');
  return (
    <table className={classes.table}>
      <thead>
        <tr>
          <th scope="col">{t('record')}</th>
          <th scope="col">{t('field')}</th>
          <th scope="col">{t('then')}</th>
          <th scope="col">{after}</th>
          {onBringBack && <td />}
        </tr>
      </thead>
      <tbody>
        {cells.map((cell) => (
          <tr key={`${cell.row} ${cell.field}`}>
            <td>{cell.record}</td>
            <td>{cell.label}</td>
            <td>{stateWords(cell.before)}</td>
            <td>{stateWords(cell.after)}</td>
            {onBringBack && (
              <td>
                {cell.before.shown !== cell.after.shown && (
                  <Button
                    size="compact-xs"
                    variant="default"
                    aria-label={t('restoreLabelOfRecord', { label: cell.label, record: cell.record })}
                    onClick={() => onBringBack(cell)}
                  >
                    {t('restore')}
                  </Button>
                )}
              </td>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
};

const stateWords = ({ shown, rules }: CellState): string =>
  `${shown || 'blank'}${rules.length ? ` (${rules.join(', ')})` : ''}`;
