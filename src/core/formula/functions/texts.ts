// Text functions (ISO/IEC 26300-4, 6.20). Lengths and places count code points.
import { formatValue } from '../../values/format-value';
import { readDate } from '../../values/dates/read-date';
import { findText } from '../../values/find-text';
import { readWildcards } from '../values/wildcards';
import { FormulaError, SerialDate, toNumber, toText, type Scalar } from '../values/formula-value';
import { forEachValue, toScalar } from '../values/read-cells';
import { anything, define, integer, optional, scalar, several, text } from './function-spec';

/** Characters that a text function may give. */
const MAX_TEXT_LENGTH = 32_767;

const within = (result: string): string | FormulaError =>
  result.length > MAX_TEXT_LENGTH ? FormulaError.value : result;

/** Code points of a text as a list. Text without surrogates needs no taking apart. */
const points = (value: string): readonly string[] =>
  /[\ud800-\udfff]/.test(value) ? Array.from(value) : value.split('');

const change = (name: string, says: string, make: (value: string) => string) =>
  define({ name, says }, [text('text')], ([value]) => make(value));

/** The first letter of each word large, the others small. */
const proper = (value: string): string =>
  value.toLowerCase().replace(/[\p{L}\p{M}]+/gu, (word) => {
    const [first = ''] = word;
    return first.toUpperCase() + word.slice(first.length);
  });

function substitute(
  value: string,
  { old, fresh, which }: { old: string; fresh: string; which: number | null },
): string | FormulaError {
  if (old === '') return value;
  if (which !== null && which < 1) return FormulaError.value;
  let result = '';
  let from = 0;
  for (let met = 1, at = findText(value, old); at >= 0; met++, at = findText(value, old, at + old.length)) {
    if (which !== null && met < which) continue;
    result += value.slice(from, at) + fresh;
    from = at + old.length;
    if (result.length > MAX_TEXT_LENGTH) return FormulaError.value;
    if (met === which) break;
  }
  return within(result + value.slice(from));
}

/** All texts of the arguments joined. */
function joined(name: string, says: string) {
  return define({ name, says }, [several(scalar('texts'))], ([values]) => {
    let result = '';
    for (const value of values) {
      const part = toText(value);
      if (typeof part !== 'string') return part;
      result += part;
    }
    return within(result);
  });
}

export const TEXTS = [
  joined('CONCATENATE', 'texts put together'),
  define(
    { name: 'EXACT', says: 'true where two texts are the same, case included' },
    [text('text'), text('other')],
    ([one, other]) => one === other,
  ),
  define(
    { name: 'FIND', says: 'where a text begins in another, case included' },
    [text('wanted'), text('text'), optional(integer('from'), 1)],
    ([wanted, value, from]) => {
      const letters = points(value);
      if (from < 1 || from > letters.length + 1) return FormulaError.value;
      const rest = letters.slice(from - 1).join('');
      const at = findText(rest, wanted);
      return at < 0 ? FormulaError.value : from + points(rest.slice(0, at)).length;
    },
  ),
  define(
    { name: 'SEARCH', says: 'where a text begins in another, case aside; * and ? stand for any letters' },
    [text('wanted'), text('text'), optional(integer('from'), 1)],
    ([wanted, value, from]) => {
      if (from < 1 || from > points(value).length + 1) return FormulaError.value;
      const at = readWildcards(wanted).find(value, from - 1);
      return at < 0 ? FormulaError.value : at + 1;
    },
  ),
  define(
    { name: 'LEFT', says: 'the first letters of a text' },
    [text('text'), optional(integer('count'), 1)],
    ([value, count]) => (count < 0 ? FormulaError.value : points(value).slice(0, count).join('')),
  ),
  define(
    { name: 'RIGHT', says: 'the last letters of a text' },
    [text('text'), optional(integer('count'), 1)],
    ([value, count]) => (count < 0 ? FormulaError.value : count === 0 ? '' : points(value).slice(-count).join('')),
  ),
  define(
    { name: 'MID', says: 'letters from the middle of a text' },
    [text('text'), integer('from'), integer('count')],
    ([value, from, count]) =>
      from < 1 || count < 0
        ? FormulaError.value
        : points(value)
            .slice(from - 1, from - 1 + count)
            .join(''),
  ),
  define({ name: 'LEN', says: 'how many letters a text has' }, [text('text')], ([value]) => points(value).length),
  change('LOWER', 'the text in small letters', (value) => value.toLowerCase()),
  change('UPPER', 'the text in capital letters', (value) => value.toUpperCase()),
  change('PROPER', 'each word with a capital', proper),
  change('TRIM', 'the text without outer spaces, inner ones made single', (value) =>
    value.replace(/ +/g, ' ').replace(/^ | $/g, ''),
  ),
  define(
    { name: 'REPLACE', says: 'the text with letters replaced by place' },
    [text('text'), integer('from'), integer('count'), text('by')],
    ([value, from, count, by]) => {
      if (from < 1 || count < 0) return FormulaError.value;
      const letters = points(value);
      return within(letters.slice(0, from - 1).join('') + by + letters.slice(from - 1 + count).join(''));
    },
  ),
  define({ name: 'REPT', says: 'the text so many times' }, [text('text'), integer('times')], ([value, times]) =>
    times < 0 || value.length * times > MAX_TEXT_LENGTH ? FormulaError.value : value.repeat(times),
  ),
  define(
    { name: 'SUBSTITUTE', says: 'the text with one text put for another, everywhere or the n-th time' },
    [text('text'), text('old'), text('new'), optional(scalar('which'), null)],
    ([value, old, fresh, which]) => {
      const n = which === null ? null : toNumber(which);
      return n instanceof FormulaError
        ? n
        : substitute(value, { old, fresh, which: n === null ? null : Math.trunc(n) });
    },
  ),
  define({ name: 'T', says: 'the value if it is text, else an empty text' }, [scalar('value')], ([value]) =>
    typeof value === 'string' ? value : '',
  ),
  define(
    { name: 'TEXT', says: 'the value as a number format shows it' },
    [scalar('value'), text('format')],
    ([value, format]) => formatScalar(value, format),
  ),
  define(
    { name: 'TEXTJOIN', says: 'texts put together with a separator between them' },
    [text('separator'), scalar('skip blanks'), several(anything('texts'))],
    ([separator, skip, operands], place) => {
      const parts: string[] = [];
      const skipsBlanks = skip !== false && skip !== 0 && skip !== null;
      for (const { operand } of operands) {
        const error = forEachValue(operand, place, (value) => {
          const part = toText(value);
          if (typeof part !== 'string') return part;
          if (part !== '' || !skipsBlanks) parts.push(part);
          return undefined;
        });
        if (error) return error;
      }
      return within(parts.join(separator));
    },
  ),
  define(
    { name: 'VALUE', says: 'the number or date that a text stands for' },
    [anything('text')],
    ([{ operand }], place): Scalar => {
      const value = toScalar(operand, place);
      if (typeof value !== 'string') return value instanceof SerialDate ? value : toNumber(value);
      return readDate(value.trim()) ?? toNumber(value);
    },
  ),
];

function formatScalar(value: Scalar, format: string): string | FormulaError {
  if (value === null || typeof value === 'number')
    return formatValue({ kind: 'number', number: value ?? 0 }, format) ?? FormulaError.value;
  if (value instanceof SerialDate)
    return formatValue({ kind: 'date', serial: value.serial }, format) ?? FormulaError.value;
  const number = typeof value === 'string' ? toNumber(value) : value;
  if (typeof number === 'number') return formatValue({ kind: 'number', number }, format) ?? FormulaError.value;
  return toText(value);
}
