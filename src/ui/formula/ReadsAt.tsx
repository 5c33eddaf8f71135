import { IconArrowDown, IconArrowRight } from '@tabler/icons-react';
import { useState } from 'react';
import { shiftFormula } from '../../core/formula/syntax/rewrite-references';
import { cellAddress } from '../../core/sheet/address';
import { ActionIcon } from '@mantine/core';
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
  const [away, setAway] = useState({ columns: 0, rows: 1 });
  const step = (columns: number, rows: number) => setAway({ columns: away.columns + columns, rows: away.rows + rows });
  const reads = shiftFormula(formula, away.columns, away.rows);
  return (
    <span className={classes.reads} role="group" aria-label="How it reads elsewhere">
      <span className={classes.text}>
        at {cellAddress(column + away.columns, position + away.rows)} <code>{reads}</code>
      </span>
      {(
        [
          ['Read it one cell further down', IconArrowDown, 0, 1],
          ['Read it one cell further right', IconArrowRight, 1, 0],
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
