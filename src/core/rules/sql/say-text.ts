import sql, { join, type Sql } from 'sql-template-tag';
import { foldText } from '../../values/fold-text';
import { numberText } from '../../values/number-text';
import { isOpposite, type TextWhen } from '../kinds/text';
import { isProblem, type Operand, type Problem } from '../terms';
import type { LinkedColumn } from './linked-table';
import { NEVER, where, type Says } from './said-condition';
import { unsaid, type SqlContext } from './sql-context';

/** Words in the shown text of a cell, both folded. */
export const sayText: Says<TextWhen> = (when, context, read) => {
  if (when.is === 'pattern') return unsaid('a pattern, as databases read patterns in another way');
  const words: (Word | null)[] = [];
  for (const operand of when.any) {
    const word = wordOf(operand, when, context);
    if (word && isProblem(word)) return word;
    words.push(word);
  }
  const texts = new Map<LinkedColumn, Sql>();
  for (const column of read) {
    const folded = context.values.folded(column, when);
    if (!folded) return unsaid(`the texts that the ${column.type}s of “${column.name}” are shown with`);
    texts.set(column, folded);
  }
  const known = words.filter((word) => word !== null);
  if (known.length === 0) return () => NEVER;
  return (column) => {
    const text = texts.get(column);
    if (!text) return NEVER;
    const not = isOpposite(when.is) ? sql`not ` : sql``;
    if (known.every(({ isThere }) => isThere === null))
      return where(
        sql`${not}(${join(
          known.map((word) => meeting(when, text, word.text)),
          ' or ',
        )})`,
      );
    const isThere = (word: Word): Sql => word.isThere ?? sql`true`;
    const met = known.map((word) => sql`coalesce(${isThere(word)} and ${meeting(when, text, word.text)}, false)`);
    const isAnyWord = join(known.map(isThere), ' or ');
    return where(sql`${text} is not null and (${isAnyWord}) and ${not}(${join(met, ' or ')})`);
  };
};

/** A word to look for, folded, and whether there is one beside the cell; null where there always is. */
interface Word {
  readonly text: Sql;
  readonly isThere: Sql | null;
}

function wordOf(operand: Operand, when: TextWhen, context: SqlContext): Word | Problem | null {
  if (typeof operand === 'object') {
    if (!('field' in operand)) return unsaid('a word that is a cell or a formula');
    const column = context.column(operand.field);
    if (isProblem(column)) return column;
    const isScaled = operand.times !== undefined || operand.plus !== undefined;
    const text = context.values.folded(column, when);
    if (!text || (isScaled && column.type !== 'text' && column.type !== 'logical'))
      return unsaid(`the texts that the ${column.type}s of “${column.name}” are shown with`);
    // What is no number has no multiple.
    return isScaled ? null : { text, isThere: sql`coalesce(${text} <> '', false)` };
  }
  const folded = foldText(typeof operand === 'number' ? numberText(operand) : String(operand), when);
  return folded === '' ? null : { text: sql`(${folded}::text collate "C")`, isThere: null };
}

function meeting({ is }: TextWhen, text: Sql, word: Sql): Sql {
  switch (is) {
    case 'starts':
      return sql`starts_with(${text}, ${word})`;
    case 'ends':
      return sql`right(${text}, length(${word})) = ${word}`;
    case 'equals':
    case 'differs':
      return sql`${text} = ${word}`;
    default:
      return sql`position(${word} in ${text}) > 0`;
  }
}
