import sql, { join, type Sql } from 'sql-template-tag';
import type { FoldOptions } from '../../values/fold-text';

const WHITE_SPACE = '\t\n\v\f\r \u0085\u00a0\u1680\u2000-\u200a\u2028\u2029\u202f\u205f\u3000';
/** The same one by one, for btrim. */
const SPACES = WHITE_SPACE.replace(
  '\u2000-\u200a',
  String.fromCharCode(...Array.from({ length: 11 }, (_, at) => 0x2000 + at)),
);

/** A character that no text holds, instead of the small dotless i, which has no folding of its own. */
const DOTLESS = '\u{10ffff}';

/** The characters with a Unicode property, as ranges of a regular expression. */
function rangesOf(property: RegExp): string {
  const ranges: string[] = [];
  let from = -1;
  for (let point = 0; point <= 0x1_0000 + 0xf_ffff; point++) {
    const isIn = (point < 0xd800 || point > 0xdfff) && property.test(String.fromCodePoint(point));
    if (isIn && from < 0) from = point;
    if (!isIn && from >= 0) {
      ranges.push(`${String.fromCodePoint(from)}-${String.fromCodePoint(point - 1)}`);
      from = -1;
    }
  }
  return ranges.join('');
}

let marks: string | undefined;
const marksPattern = (): string => (marks ??= `[${rangesOf(/\p{Mn}/u)}]`);

/** Whether a text is nothing but white space. Only its beginning is looked at. */
export const isBlankText = (text: Sql): Sql => sql`ltrim(${text}, ${SPACES}::text) = ''`;

/** Whether a text is in ASCII with single spaces alone: most are, and what is done to others is slow. */
const isPlain = (text: Sql): Sql =>
  join(
    [
      sql`octet_length(${text}) = length(${text})`,
      ...['  ', '\t', '\n', '\v', '\f', '\r'].map((space) => sql`strpos(${text}, ${space}::text) = 0`),
    ],
    ' and ',
  );

/**
 * The folded form of a text (see `foldText`): trimmed, inner spaces made one, NFC, full case folding, marks dropped. NULL
 * where it is nothing but white space. It needs a database in UTF-8 with ICU.
 */
export function foldedText(text: Sql, options: FoldOptions = {}): Sql {
  const plain = options.case ? sql`btrim(${text})` : sql`lower(btrim(${text}) collate "C")`;
  const spaced = sql`regexp_replace(btrim(${text}, ${SPACES}::text), ${`[${WHITE_SPACE}]+`}::text, ' ', 'g')`;
  const composed = sql`normalize(${spaced}, NFC)`;
  const cased = options.case ? composed : foldedCase(composed);
  const bare = options.accents
    ? cased
    : sql`regexp_replace(normalize(${cased}, NFD), ${marksPattern()}::text, '', 'g')`;
  return sql`(case when ${isPlain(text)} then nullif(${plain}, '') collate "C" when ${isBlankText(text)} then null
    else normalize(${bare}, NFC) collate "C" end)`;
}

/** A text without its case alone, as formulas compare texts: by code points. */
export const foldedCaseText = (text: Sql): Sql =>
  sql`(case when octet_length(${text}) = length(${text}) then lower(${text} collate "C") collate "C"
    else ${foldedCase(text)} collate "C" end)`;

/** Full default case folding by way of the upper case, as the core has it. */
function foldedCase(text: Sql): Sql {
  const kept = sql`translate(${text}, 'ı', ${DOTLESS}::text)`;
  const folded = sql`lower(upper(lower(${kept} collate "und-x-icu") collate "und-x-icu") collate "und-x-icu")`;
  return sql`translate(${folded}, ${`ς${DOTLESS}`}::text, 'σı')`;
}
