import { trimSpace } from './trim-space';

export interface FoldOptions {
  /** Keep the difference between upper and lower case. */
  readonly case?: boolean;
  /** Keep accents and other marks. */
  readonly accents?: boolean;
}

const INNER_SPACE = /\p{White_Space}+/gu;
const MARKS = /\p{Mn}/gu;
const ASCII = /^[\x21-\x7e]*$/;

/**
 * The form in which two texts meet: trimmed, inner spaces made one, NFC, full case folding, marks dropped. Texts are
 * equal for rules when their folded forms are the same code points.
 */
export function foldText(text: string, options: FoldOptions = {}): string {
  if (ASCII.test(text)) return options.case ? text : text.toLowerCase();
  let folded = trimSpace(text).replace(INNER_SPACE, ' ').normalize('NFC');
  if (!options.case) folded = foldCase(folded);
  if (!options.accents) folded = folded.normalize('NFD').replace(MARKS, '');
  // Folding takes some letters apart, so that what it gives is composed once more: canonical caseless matching
  // (Unicode, section 3.13).
  return folded.normalize('NFC');
}

/**
 * Full default case folding (Unicode, CaseFolding.txt, statuses C and F) by way of the upper case, which expands what
 * folding expands (ß to ss). Dotless i has no folding of its own, and final sigma is a matter of context.
 */
export function foldCase(text: string): string {
  return text
    .split('ı')
    .map((part) => part.toLowerCase().toUpperCase().toLowerCase().replaceAll('ς', 'σ'))
    .join('ı');
}
