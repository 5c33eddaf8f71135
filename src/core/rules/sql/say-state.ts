import sql, { raw, type Sql } from 'sql-template-tag';
import type { StateWhen } from '../kinds/state';
import type { LinkedColumn } from './linked-table';
import { where, type Says } from './said-condition';

const STATE_OF = {
  integer: 'number',
  number: 'number',
  text: 'text',
  logical: 'logical',
  day: 'date',
  moment: 'date',
} as const satisfies Record<LinkedColumn['type'], StateWhen['is']>;

/** Whether a cell has a value, and of which type: each column has one. */
export const sayState: Says<StateWhen> = ({ is }, { values }) => {
  const said = (column: LinkedColumn): Sql => {
    const [blank, error] = [values.isBlank(column), values.isError(column)];
    switch (is) {
      case 'blank':
        return blank;
      case 'filled':
        return sql`not ${blank}`;
      case 'error':
        return error;
      case 'valid':
        return sql`not ${blank} and not ${error}`;
      default:
        return STATE_OF[column.type] === is ? sql`not ${blank} and not ${error}` : raw('false');
    }
  };
  return (column) => where(said(column));
};
