import { IconArrowDown, IconArrowRight } from '@tabler/icons-react';
import { useState } from 'react';
import { ActionIcon } from '@mantine/core';
import { useTranslations } from 'use-intl';
import { shiftFormula } from '../../core/formula/syntax/rewrite-references';
import { cellAddress } from '../../core/sheet/address';
import classes from './ReadsAt.module.css';

interface Props {
  readonly formula: string;
  readonly column: number;
  readonly position: number;
}

/**
 * How the formula that is being typed would read in another cell: at first the one below, then wherever the arrows step
 * to.
 */
export function ReadsAt({ formula, column, position }: Props) {
  const t = useTranslations('formula');
  const [away, setAway] = useState({ columns: 0, rows: 1 });
  const step = (columns: number, rows: number) => setAway({ columns: away.columns + columns, rows: away.rows + rows });
  const reads = shiftFormula(formula, away.columns, away.rows);
  return (
    <span className={classes.reads} role="group" aria-label={t('howItReadsElsewhere')}>
      <span className={classes.text}>
        {t.rich('atCellAddressReads', {
          cellAddress: cellAddress(column + away.columns, position + away.rows),
          reads,
          code: (chunks) => <code>{chunks}</code>,
        })}
      </span>
      {(
        [
          [t('readOneCellFurther'), IconArrowDown, 0, 1],
          [t('readOneCellFurtherRight'), IconArrowRight, 1, 0],
        ] as const
      ).map(([label, Picture, columns, rows]) => (
        // The focus stays in the formula.
        <ActionIcon
          key={label}
          variant="subtle"
          color="ink"
          size="sm"
          aria-label={label}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => step(columns, rows)}
        >
          <Picture size={13} stroke={1.5} />
        </ActionIcon>
      ))}
    </span>
  );
}
