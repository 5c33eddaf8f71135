import { itemAt } from '../../values/item-at';
import { isDatePattern } from '../../values/dates/date-format';
import { parseNumberFormat } from '../../values/number-format';

/**
 * The number formats that have a number instead of a code: ISO/IEC 29500-1, 18.8.30. Those left out there depend on the
 * language.
 */
export const BUILT_IN: Readonly<Record<number, string>> = {
  0: 'General',
  1: '0',
  2: '0.00',
  3: '#,##0',
  4: '#,##0.00',
  9: '0%',
  10: '0.00%',
  11: '0.00E+00',
  12: '# ?/?',
  13: '# ??/??',
  14: 'yyyy-mm-dd',
  15: 'd-mmm-yy',
  16: 'd-mmm',
  17: 'mmm-yy',
  18: 'h:mm AM/PM',
  19: 'h:mm:ss AM/PM',
  20: 'h:mm',
  21: 'h:mm:ss',
  22: 'yyyy-mm-dd h:mm',
  37: '#,##0 ;(#,##0)',
  38: '#,##0 ;[Red](#,##0)',
  39: '#,##0.00;(#,##0.00)',
  40: '#,##0.00;[Red](#,##0.00)',
  45: 'mm:ss',
  46: '[h]:mm:ss',
  47: 'mm:ss.0',
  48: '##0.0E+0',
  49: '@',
};

/** A format code of ISO/IEC 29500-1, 18.8.31, in our terms. */
export interface ReadFormat {
  /** A pattern of UTS #35; null where numbers are shown as they are. */
  readonly pattern: string | null;
  /** Whether numbers with it are dates or times. */
  readonly isDate: boolean;
  /** Whether the format makes what is typed a text. */
  readonly isText?: boolean;
  /** True where the pattern says less than the code did. */
  readonly isLess: boolean;
}

const TOKEN = /"([^"]*)"|\\(.)|\[([^\]]*)\]|_(.)|\*(.)|(AM\/PM|A\/P)|([yYmMdDhHsS]+)|([#0?,.%]+)|([\s\S])/gy;

/** Reads a format code: its first section, as numbers above zero are shown by it. */
export function readFormatCode(code: string): ReadFormat {
  const sections = splitSections(code);
  const first = itemAt(sections, 0);
  if (/^\s*general\s*$/i.test(first) || first === '')
    return { pattern: null, isDate: false, isLess: sections.length > 1 };
  if (first.trim() === '@') return { pattern: null, isDate: false, isText: true, isLess: false };
  const signs = first.replace(/"[^"]*"|\\.|\[[^\]]*\]|_.|\*.|s\.0+/g, (part) => (part.startsWith('s') ? 's' : ''));
  const isDate = /[ymdhs]/i.test(signs) && !/[#0?]/.test(signs);
  // Hours that go on beyond a day are a length of time: a number of days.
  if (/\[[hms]+\]/i.test(first)) return { pattern: null, isDate: false, isLess: true };
  const pattern = isDate ? datePattern(first) : numberPattern(first);
  if (pattern === undefined || pattern.length > 64) return { pattern: null, isDate, isLess: true };
  // A section that shows text as it is says nothing.
  const hasMore = sections.slice(1).some((section) => section.trim() !== '@');
  // Colours and conditions stand in brackets, as languages and currencies do, but without their sign.
  return { pattern, isDate, isLess: hasMore || /[?]|\*|s\.0|\[(?!\$)/i.test(first) };
}

function splitSections(code: string): string[] {
  const sections = [''];
  for (const [token] of code.matchAll(/"[^"]*"|\\.|\[[^\]]*\]|[\s\S]/g)) {
    if (token === ';') sections.push('');
    else sections[sections.length - 1] += token;
  }
  return sections;
}

function numberPattern(section: string): string | undefined {
  let pattern = '';
  for (const [, quoted, escaped, bracket, space, , , letters, digits, other] of section.matchAll(TOKEN)) {
    if (digits !== undefined) pattern += digits.replaceAll('?', '#');
    else if (bracket !== undefined) pattern += /^\$([^-]*)/.exec(bracket)?.[1] ?? '';
    else if (space !== undefined) pattern += ' ';
    else pattern += quoted ?? escaped ?? letters ?? other ?? '';
  }
  pattern = pattern.trim();
  return parseNumberFormat(pattern) ? pattern : undefined;
}

/** Minutes are recognised by their neighbours: hours before, or seconds after. */
function datePattern(section: string): string | undefined {
  const tokens = [...section.matchAll(TOKEN)];
  const halves = tokens.some((token) => token[6] !== undefined);
  let pattern = '';
  for (const [at, [, quoted, escaped, , , , half, letters, digits, other]] of tokens.entries()) {
    if (letters !== undefined) pattern += dateField(letters.toLowerCase(), { halves, isMinute: isMinute(tokens, at) });
    else if (half !== undefined) pattern += 'a';
    else if (quoted !== undefined || escaped !== undefined) pattern += literal(quoted ?? escaped ?? '');
    else if (digits === '.' || digits === ',') pattern += digits;
    else if (digits === undefined && other !== undefined && other !== '@')
      pattern += /[a-z']/i.test(other) ? literal(other) : other;
  }
  return pattern.replace(/\.$/, '').trim() || undefined;
}

const literal = (text: string): string => (/[a-zA-Z']/.test(text) ? `'${text.replaceAll("'", "''")}'` : text);

function isMinute(tokens: readonly RegExpExecArray[], at: number): boolean {
  const runs = tokens.map(([, , , , , , , letters = '']) => letters.toLowerCase());
  const before = runs.slice(0, at).findLast((run) => /^[ymdhs]/.test(run));
  const after = runs.slice(at + 1).find((run) => /^[ymdhs]/.test(run));
  return itemAt(runs, at).startsWith('m') && (before?.startsWith('h') === true || after?.startsWith('s') === true);
}

function dateField(
  run: string,
  { halves, isMinute }: { readonly halves: boolean; readonly isMinute: boolean },
): string {
  const width = run.length;
  switch (run[0]) {
    case 'y':
      return width > 2 ? 'yyyy' : 'yy';
    case 'm':
      return isMinute ? 'm'.repeat(Math.min(2, width)) : 'M'.repeat(Math.min(4, width));
    case 'd':
      return width > 3 ? 'EEEE' : width === 3 ? 'EEE' : 'd'.repeat(width);
    case 'h':
      return (halves ? 'h' : 'H').repeat(Math.min(2, width));
    default:
      return 's'.repeat(Math.min(2, width));
  }
}

/** A pattern of UTS #35 as a format code. */
export function writeFormatCode(pattern: string): string {
  if (isDatePattern(pattern)) return writeDateCode(pattern);
  const format = parseNumberFormat(pattern);
  if (!format) return 'General';
  const [, prefix = '', digits = '', suffix = ''] = /^([^#0.]*)([#0,.]+)([\s\S]*)$/.exec(pattern) ?? [];
  return quoted(prefix) + digits + quoted(suffix);
}

/** Signs that need no quotes in a code: ISO/IEC 29500-1, 18.8.31. */
const quoted = (text: string): string => text.replace(/[^%$\-+/(): ]+/g, (run) => `"${run.replaceAll('"', '')}"`);

function writeDateCode(pattern: string): string {
  let code = '';
  for (const [whole, text, letter] of pattern.matchAll(/'((?:[^']|'')*)'|([a-zA-Z])\2*|[^a-zA-Z']+/g)) {
    if (text !== undefined) code += `"${text === '' ? "'" : text.replaceAll("''", "'")}"`;
    else if (letter === undefined) code += whole;
    else if (letter === 'E') code += whole.length >= 4 ? 'dddd' : 'ddd';
    else if (letter === 'a') code += 'AM/PM';
    else if (letter === 'M' || letter === 'H') code += whole.toLowerCase();
    else code += whole.length === 1 && letter === 'y' ? 'yyyy' : whole;
  }
  return code;
}
