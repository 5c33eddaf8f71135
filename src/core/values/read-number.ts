const PLAIN = /^([+\-\u2212]?)(\d+(?:\.\d*)?|\d{1,3}(?:,\d{3})+(?:\.\d*)?|\.\d+)(?:[eE]([+-]?\d+))?$/;
const CURRENCY_BEFORE = /^([+\-\u2212]?)\s*(\p{Sc})\s*([+\-\u2212]?)\s*(.*)$/u;
const CURRENCY_AFTER = /^(.*?)\s*(\p{Sc})\s*(-|\u2212)?$/u;

/**
 * Characters of a number. What is longer is text: a double has 17 digits, and the expressions here may look at some
 * places several times.
 */
const MAX_LENGTH = 1000;

export interface NumberRead {
  readonly number: number;
  /** The number format that the way of typing asks for (UTS #35 pattern): percent, currency, grouping and decimals. */
  readonly format: string | null;
}

/**
 * Reads a typed number, percentage or amount of money; undefined for anything else, for numbers beyond the range of a
 * double, and for more than 1,000 characters.
 */
export function readNumber(text: string): NumberRead | undefined {
  if (text.length > MAX_LENGTH || isLetter(text.charCodeAt(0))) return undefined;
  const simple = readDigits(text);
  if (simple) return Number.isFinite(simple.number) ? simple : undefined;
  const found = text.at(-1) === '%' ? readPercent(text) : (readPlain(text) ?? readCurrency(text));
  return found && Number.isFinite(found.number) ? found : undefined;
}

/** What begins with a letter is no number, and most texts do. */
const isLetter = (unit: number): boolean => (unit >= 0x41 && unit <= 0x5a) || (unit >= 0x61 && unit <= 0x7a);

const [MINUS, POINT, ZERO, NINE] = [0x2d, 0x2e, 0x30, 0x39] as const;

/** By the number of decimals, the format of numbers that are typed with so many. */
const DECIMALS: (string | null)[] = [null];

/**
 * Digits with a point or without, after a minus or without: most numbers that are typed, in a fifth of the time of an
 * expression that knows them all. Undefined for any other text.
 */
function readDigits(text: string): NumberRead | undefined {
  const begin = text.charCodeAt(0) === MINUS ? 1 : 0;
  let point = -1;
  for (let at = begin; at < text.length; at++) {
    const unit = text.charCodeAt(at);
    if (unit === POINT && point < 0) point = at;
    else if (unit < ZERO || unit > NINE) return undefined;
  }
  if (text.length - begin - Number(point >= 0) === 0) return undefined;
  const decimals = point < 0 ? 0 : text.length - point - 1;
  const format = (DECIMALS[decimals] ??= decimals === 0 ? null : `0.${'0'.repeat(decimals)}`);
  return { number: Number(text), format };
}

function readPlain(text: string, exponentShift = 0): NumberRead | undefined {
  const match = PLAIN.exec(text);
  if (!match) return undefined;
  const [, sign, digits = '', exponent] = match;
  const size = Number(`${digits.replaceAll(',', '')}e${Number(exponent ?? 0) + exponentShift}`);
  const fraction = digits.split('.')[1] ?? '';
  const whole = digits.includes(',') ? '#,##0' : '0';
  const format =
    exponent === undefined && (fraction || whole !== '0')
      ? whole + (fraction && `.${'0'.repeat(fraction.length)}`)
      : null;
  return { number: sign === '-' || sign === '\u2212' ? -size : size, format };
}

/**
 * The percent sign moves the decimal point by two places before the text becomes a double, so 12.3% is the double
 * nearest to 0.123.
 */
function readPercent(text: string): NumberRead | undefined {
  const plain = readPlain(text.slice(0, -1).trimEnd(), -2);
  return plain && { number: plain.number, format: `${plain.format ?? '0'}%` };
}

function readCurrency(text: string): NumberRead | undefined {
  const before = CURRENCY_BEFORE.exec(text);
  const after = before ? null : CURRENCY_AFTER.exec(text);
  if (!before && !after) return undefined;
  const [, sign = '', symbolBefore, otherSign = '', digitsAfter = ''] = before ?? [];
  const [, digitsBefore = '', symbolAfter, signAfter = ''] = after ?? [];
  const signs = before ? sign + otherSign : signAfter;
  const digits = before ? digitsAfter : digitsBefore;
  const plain = readPlain(digits);
  if (!plain || signs.length > 1 || (signs && /^[+\-\u2212]/.test(digits))) return undefined;
  const pattern = plain.format ?? '0';
  return {
    number: signs && signs !== '+' ? -plain.number : plain.number,
    format: before ? `${symbolBefore}${pattern}` : `${pattern}\u00a0${symbolAfter}`,
  };
}
