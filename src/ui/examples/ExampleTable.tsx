import { useComputedColorScheme } from '@mantine/core';
import { useMemo } from 'react';
import { exampleSheet } from '../../core/exchange/example-sheet';
import type { Theme } from '../../core/looks/first-family';
import type { LookValues } from '../../core/looks/look';
import { Evaluation } from '../../core/rules/evaluate/evaluation';
import type { Example } from '../../core/rules/suggest/examples';
import { shownAt } from '../../core/sheet/shown-cell';
import { Sheet } from '../../core/sheet/sheet';
import { savedLooks } from '../../core/sheet/sheet-looks';
import { TAG } from '../../core/values/cell-value';
import { painted } from '../grid/painter/scene';
import { LookIcon } from '../legend/LookIcon';
import { paintedCss } from '../painted-css';
import { TOKENS } from '../theme/tokens';
import classes from './ExampleTable.module.css';
import { serialOfToday } from './serial-of-today';

interface ExampleCell {
  readonly text: string;
  readonly isNumber: boolean;
  readonly properties: Partial<LookValues>;
}

/** A small table as its rules paint it. */
export function ExampleTable({ example, label }: { readonly example: Example; readonly label: string }) {
  const theme = useComputedColorScheme('light', { getInitialValueInEffect: false });
  const rows = useMemo(() => cellsOf(example, theme), [example, theme]);
  return (
    <table className={classes.table} aria-label={label}>
      <tbody>
        {rows.map((row, position) => (
          <tr key={position}>
            {row.map(({ text, isNumber, properties }, column) => {
              const Tag = position === 0 ? 'th' : 'td';
              const look = painted({ properties, rules: [], style: {} });
              return (
                <Tag key={column} data-number={isNumber || undefined} style={paintedCss(look, TOKENS[theme])}>
                  {properties.icon && <LookIcon icon={properties.icon} />} {text}
                </Tag>
              );
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Evaluates an example in the page: a few cells, with nothing kept. */
function cellsOf(example: Example, theme: Theme): readonly (readonly ExampleCell[])[] {
  const now = serialOfToday();
  const { fields, rows, rules } = exampleSheet('', example, now);
  const made = new Sheet(fields);
  made.apply({ kind: 'insert-rows', rows });
  const evaluation = new Evaluation(made, savedLooks([], theme), { now });
  evaluation.calculation.calculateAll();
  evaluation.setRules(rules.map(({ rule }) => rule));
  return made.order.map((slot) =>
    fields.map((_, column) => ({
      text: shownAt(made, column, slot),
      isNumber: made.column(column).tags[slot] === TAG.number,
      properties: Object.fromEntries(evaluation.resolver.resolve(column, slot).properties),
    })),
  );
}
