/** What divides decimals from whole numbers. */
export type Decimal = '.' | ',';

/** Digits whose groups are divided by points or spaces (ISO 80000-1, 7.3), or not divided. */
const WHOLE = String.raw`[+\-\u2212]?(?:\d+|\d{1,3}(?:[.\u00a0\u202f ]\d{3})+)`;
const WITH_COMMA = new RegExp(String.raw`^\s*${WHOLE},\d+\s*%?\s*$`);
const WITHOUT_POINT = new RegExp(String.raw`^\s*${WHOLE}(?:,\d+)?\s*%?\s*$`);

/** Decimals that are not three in number, or groups divided by points or spaces before the comma. */
const CANNOT_BE_GROUPS = /^[+\-\u2212]?(?:\d+,(?:\d{1,2}|\d{4,})|\d{1,3}(?:[.\u00a0\u202f ]\d{3})+,\d+|0,\d+)\s*%?$/;

/** A number with a decimal comma as it is typed here, such as 1234.5 for 1.234,5; any other text as it is. */
export const withDecimalPoint = (text: string): string => (WITH_COMMA.test(text) ? ungrouped(text) : text);

/** The same where every point divides groups, as in a file with decimal commas: 1234 for 1.234 too. */
export const withoutGroups = (text: string): string => (WITHOUT_POINT.test(text) ? ungrouped(text) : text);

/** True for a number whose comma can divide nothing but decimals, wherever it was written: 3,5 but not 3,500. */
export const isDecimalComma = (text: string): boolean => CANNOT_BE_GROUPS.test(text);

/**
 * How text that a person types is read where decimals have this sign. Those who fill in answers seldom chose the region
 * of the device in their hands: a comma that can only be decimal is, for them, one everywhere.
 */
export function typedReader(decimal: Decimal, isFilling: boolean): (text: string) => string {
  if (decimal === ',') return withDecimalPoint;
  return (text) => (isFilling && isDecimalComma(text.trim()) ? withDecimalPoint(text) : text);
}

const ungrouped = (text: string): string => text.replace(/[.\u00a0\u202f\s]/g, '').replace(',', '.');
