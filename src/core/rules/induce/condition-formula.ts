import type { When } from '../kinds/registry';
import { numberText } from '../../values/number-text';

const quoted = (text: string): string => `"${text.trim().replaceAll('"', '""')}"`;
/** Escapes the signs that a search takes for others. */
const sought = (text: string): string => quoted(text.replace(/[*?~]/g, '~$&'));

/**
 * A condition about one cell as a part of a formula, which is true where the condition holds. Undefined for conditions
 * that take more than a few words: statistics, other fields, days around today.
 */
export function conditionFormula(when: When, cell: string): string | undefined {
  if (when.kind === 'compare') {
    const { is, to, magnitude } = when;
    if (magnitude) return undefined;
    if (typeof to === 'number' && is !== 'between' && is !== 'outside')
      return `AND(ISNUMBER(${cell});${cell}${is === '!=' ? '<>' : is}${numberText(to)})`;
    if (typeof to === 'string' && is === '=') return `${cell}=${quoted(to)}`;
    if (typeof to === 'string' && is === '!=') return `AND(ISTEXT(${cell});${cell}<>${quoted(to)})`;
    return undefined;
  }
  if (when.kind === 'text') {
    const [word, ...more] = when.any;
    if (typeof word !== 'string' || more.length) return undefined;
    if (when.is === 'contains') return `ISNUMBER(SEARCH(${sought(word)};${cell}))`;
    if (when.is === 'starts') return `LEFT(${cell};LEN(${quoted(word)}))=${quoted(word)}`;
    return undefined;
  }
  if (when.kind === 'state')
    return when.is === 'blank' ? `${cell}=""` : when.is === 'filled' ? `${cell}<>""` : undefined;
  return undefined;
}
