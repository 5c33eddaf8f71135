import sql, { join, raw, type Sql } from 'sql-template-tag';
import type { CellValue } from '../../values/cell-value';
import { foldText } from '../../values/fold-text';
import { readInput } from '../../values/read-input';
import { isAnswerList, type KeyWhen } from '../kinds/key';
import type { LinkedColumn } from './linked-table';
import { NEVER, type Says } from './said-condition';
import { unsaid, type SqlContext } from './sql-context';

const [EMPTY, RIGHT, WRONG] = [0, 1, 3].map((outcome) => raw(String(outcome)));

/** An answer against a list of answers, exactly. */
export const sayKey: Says<KeyWhen> = (when, context) => {
  if (when.near) return unsaid('answers that are nearly right');
  if (when.tolerance !== undefined) return unsaid('answers within a tolerance');
  const { expect } = when;
  if (!isAnswerList(expect)) return unsaid('a key in fields or cells of its own');
  const answers = expect.map(
    (answer) => readInput(typeof answer === 'boolean' ? String(answer).toUpperCase() : String(answer)).value,
  );
  const known = answers.filter(({ kind }) => kind !== 'blank');
  if (known.length === 0) return () => NEVER;
  return (column) => {
    const right = known.flatMap((answer) => meets(column, answer, { when, context }) ?? []);
    const isRight = right.length ? join(right, ' or ') : raw('false');
    return sql`(case when ${context.values.isBlank(column)} then ${EMPTY} when ${isRight} then ${RIGHT} else ${WRONG} end)`;
  };
};

/** Whether a cell meets an answer of its own type; null where the column is of another one. */
function meets(
  column: LinkedColumn,
  answer: CellValue,
  { when, context: { values } }: { readonly when: KeyWhen; readonly context: SqlContext },
): Sql | null {
  switch (answer.kind) {
    case 'number': {
      const number = values.number(column);
      return number && sql`${number} = ${answer.number}::float8`;
    }
    case 'date': {
      const serial = values.serial(column);
      return serial && sql`${serial} = ${answer.serial}::float8`;
    }
    case 'logical': {
      const logical = values.logical(column);
      return logical && sql`${logical} = ${answer.logical}::boolean`;
    }
    case 'text': {
      const folded = column.type === 'text' ? values.folded(column, when) : null;
      return folded && sql`${folded} = (${foldText(answer.text, when)}::text collate "C")`;
    }
    default:
      return null;
  }
}
