/** A UTS #35 number pattern, taken apart. */
export interface NumberFormat {
  readonly prefix: string;
  readonly suffix: string;
  readonly percent: boolean;
  readonly grouping: boolean;
  readonly minimumInteger: number;
  readonly minimumFraction: number;
  readonly maximumFraction: number;
}

const PATTERN = /^([^#0,.]*)([#0,]*)(?:\.([0#]*))?([^#0,.]*)$/;

/**
 * Takes apart a pattern such as `#,##0.00`, `0.0%` or `¤#,##0`; undefined where it is not a number pattern. `¤` shows
 * as the generic currency sign.
 */
export function parseNumberFormat(pattern: string): NumberFormat | undefined {
  const match = PATTERN.exec(pattern);
  const [, prefix = '', whole = '', fraction = '', suffix = ''] = match ?? [];
  if (!match || (!whole && !fraction) || /0[#,]*#/.test(whole) || /#0/.test(fraction)) return undefined;
  return {
    prefix: prefix.replace('%', ''),
    suffix: suffix.replace('%', ''),
    percent: prefix.includes('%') || suffix.includes('%'),
    grouping: whole.includes(','),
    minimumInteger: Math.max(whole.replace(/[^0]/g, '').length, fraction ? 0 : 1),
    minimumFraction: fraction.replace(/[^0]/g, '').length,
    maximumFraction: fraction.length,
  };
}

interface Prepared {
  readonly format: NumberFormat;
  readonly shown: Intl.NumberFormat;
  readonly plain: Intl.NumberFormat;
  /** Numbers shown before: a field's values come again and again, in each window that is painted. */
  readonly known: Map<number, string>;
}

/** Shown numbers that are cached for a pattern before the cache is emptied. */
const MAX_KNOWN = 20_000;

const parsed = new Map<string, Prepared | null>();

function prepare(pattern: string): Prepared | null {
  let found = parsed.get(pattern);
  if (found === undefined) {
    const format = parseNumberFormat(pattern);
    const options = format && {
      minimumIntegerDigits: Math.max(1, format.minimumInteger),
      minimumFractionDigits: Math.min(format.minimumFraction, 20),
      maximumFractionDigits: Math.min(format.maximumFraction, 20),
      style: format.percent ? ('percent' as const) : ('decimal' as const),
    };
    found = format
      ? {
          format,
          shown: new Intl.NumberFormat('en', { ...options, useGrouping: format.grouping }),
          plain: new Intl.NumberFormat('en', { ...options, useGrouping: false }),
          known: new Map(),
        }
      : null;
    parsed.set(pattern, found);
  }
  return found;
}

/** The number as a pattern shows it, half rounded away from zero; as its shortest decimal where there is no pattern. */
export function formatNumber(number: number, pattern: string | null): string {
  const prepared = pattern === null ? null : prepare(pattern);
  return prepared ? shownBy(prepared, number) : String(number);
}

/** The number as a pattern shows it; undefined where that is not a number pattern. */
export function formatByPattern(number: number, pattern: string): string | undefined {
  const prepared = prepare(pattern);
  return prepared ? shownBy(prepared, number) : undefined;
}

function shownBy({ format: { prefix, suffix }, shown, known }: Prepared, number: number): string {
  const before = known.get(number);
  // 0 and -0 are the same key and different texts.
  if (before !== undefined && number !== 0) return before;
  const digits = shown.format(number);
  const text = digits.startsWith('-') ? `-${prefix}${digits.slice(1)}${suffix}` : prefix + digits + suffix;
  if (known.size >= MAX_KNOWN) known.clear();
  known.set(number, text);
  return text;
}

/** The number that a pattern's shown digits stand for: what `asShown` compares. */
export function roundAsShown(number: number, pattern: string | null): number {
  const prepared = pattern === null ? null : prepare(pattern);
  if (!prepared) return number;
  const digits = prepared.plain.format(number);
  return digits.endsWith('%') ? Number(`${digits.slice(0, -1)}e-2`) : Number(digits);
}

/** The pattern with one decimal more or fewer, at most 20 and at least none. */
export function withDecimals(pattern: string, by: 1 | -1): string {
  const match = PATTERN.exec(pattern);
  if (!match) return pattern;
  const [, prefix = '', whole = '', fraction = '', suffix = ''] = match;
  const decimals = by > 0 ? `${fraction}0`.slice(0, 20) : fraction.slice(0, -1);
  return `${prefix}${whole || '0'}${decimals ? `.${decimals}` : ''}${suffix}`;
}
