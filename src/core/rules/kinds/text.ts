import type Joi from 'joi';
import { RE2JS } from 're2js';
import { lazySchema } from '../../lazy-schema';
import { shownAt, textAt } from '../../sheet/shown-cell';
import { TAG, type CellValue } from '../../values/cell-value';
import { foldText } from '../../values/fold-text';
import { shownText } from '../../values/shown-text';
import type { Column } from '../../sheet/column/column';
import type { CompileContext } from '../compile/compile-context';
import { judgeContents, UNKNOWN } from '../compile/judge-contents';
import { readOperands } from '../compile/operands';
import type { OutcomeColumn } from '../compile/outcome-column';
import { isProblem, type Inputs, type Operand, type Problem } from '../terms';
import type { Comparison, ConditionKind, Kernel } from './kind';
import { mapOperand, operandSchema } from '../compile/operand-schema';

export const TEXT_TESTS = {
  contains: 'contains',
  lacks: 'does not contain',
  starts: 'begins with',
  ends: 'ends with',
  equals: 'is the text',
  differs: 'is not the text',
  pattern: 'fits the pattern',
} as const;

export interface TextWhen {
  readonly kind: 'text';
  readonly is: keyof typeof TEXT_TESTS;
  /** Words of which any is enough; for `lacks` and `differs` none may be found. */
  readonly any: readonly Operand[];
  /** Keep the difference between upper and lower case. */
  readonly case?: boolean;
  /** Keep accents and other marks. */
  readonly accents?: boolean;
}

export const isOpposite = (is: TextWhen['is']): boolean => is === 'lacks' || is === 'differs';

/** The cell's text against words or patterns. Blanks and errors never match, and an empty word never does. */
export const text: ConditionKind<TextWhen> = {
  schema: lazySchema<TextWhen>((joi) =>
    joi
      .object<TextWhen>({
        kind: joi.valid('text').required(),
        is: joi.valid(...Object.keys(TEXT_TESTS)).required(),
        any: joi
          .array()
          .items(operandSchema(['string', 'number'])(joi))
          .min(1)
          .required(),
        case: joi.boolean(),
        accents: joi.boolean(),
      })
      .custom(checkPatterns),
  ),
  outcomes: 'match',
  mapReferences: (when, to) => ({ ...when, any: when.any.map((operand) => mapOperand(operand, to)) }),
  outcomeLooks: () => undefined,
  compile(when, context) {
    const operands = readOperands(when.any, context);
    return isProblem(operands) ? operands : new TextKernel(when, context, operands);
  },
  sentence: (when, words) =>
    `${TEXT_TESTS[when.is]} ${when.any.map((operand) => words.operand(operand)).join(isOpposite(when.is) ? ' nor ' : ' or ')}` +
    [when.case && ', case included', when.accents && ', accents included'].filter(Boolean).join(''),
  outcomeName: () => '',
  defaults: ({ commonText }) => ({ kind: 'text', is: 'contains', any: [commonText ?? 'word'] }),
  thresholds: () => [],
  isByRecord: () => true,
  examples: [
    {
      says: 'a word is found whatever its case and accents, and never in a blank',
      when: { kind: 'text', is: 'contains', any: ['word'] },
      inputs: ['one WORD', 'Wörd', '', 'wor', '7'],
      outcomes: [0, 0, -1, -1, -1],
    },
    {
      says: 'a blank does not lack a word either',
      when: { kind: 'text', is: 'lacks', any: ['word', 'term'] },
      inputs: ['one word', 'a term', '', 'else', '7'],
      outcomes: [-1, -1, -1, 0, 0],
    },
    {
      says: 'a pattern is searched in the text as shown',
      when: { kind: 'text', is: 'pattern', any: ['^[a-c]-\\d+$'] },
      inputs: ['A-12', 'd-1', 'a-1 ', '12'],
      outcomes: [0, -1, -1, -1],
    },
  ],
};

function checkPatterns(when: TextWhen, helpers: Joi.CustomHelpers): TextWhen | Joi.ErrorReport {
  if (when.is !== 'pattern') return when;
  for (const [at, pattern] of when.any.entries()) {
    if (typeof pattern !== 'string') continue;
    if (!compilePattern(pattern, when))
      return helpers.message({ custom: `{{#label}}.any[${at}] is not a pattern that RE2 reads` });
  }
  return when;
}

/** Whether a text is a pattern that RE2 reads. */
export const isPattern = (pattern: string): boolean => compilePattern(pattern, {}) !== undefined;

/** A pattern of RE2: linear time whatever the text. Undefined where it is none. */
function compilePattern(pattern: string, when: Pick<TextWhen, 'case'>): RE2JS | undefined {
  try {
    return RE2JS.compile(pattern, when.case ? 0 : RE2JS.CASE_INSENSITIVE);
  } catch {
    return undefined;
  }
}

interface Word {
  readonly meets: (folded: string, shown: string) => boolean;
  /** Its folded form; null for a pattern. */
  readonly folded: string | null;
  readonly shown: string;
}
type Words = readonly Word[];

/** Distinct contents from which all their texts are searched at once. */
const MANY = 200;

class TextKernel implements Kernel {
  readonly inputs: Inputs;
  private readonly readers;
  private readonly constant: Words | undefined;

  constructor(
    private readonly when: TextWhen,
    private readonly context: CompileContext,
    operands: Exclude<ReturnType<typeof readOperands>, Problem>,
  ) {
    this.inputs = operands.inputs;
    this.readers = operands.readers;
    this.constant = this.readers.every((reader) => reader.constant)
      ? this.wordsAt(context.cells[0]?.column ?? 0, 0)
      : undefined;
  }

  private wordsAt(column: number, slot: number): Words {
    return this.readers.flatMap((reader) => {
      const word = wordOf(reader.valueAt(slot, column));
      const meets = word === undefined ? undefined : meeting(word, this.when);
      const folded = word === undefined || this.when.is === 'pattern' ? null : foldText(word, this.when);
      return meets ? { meets, folded, shown: reader.shownAt(slot, column) } : [];
    });
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    const { sheet } = this.context;
    const judge = (slot: number) => this.outcomeAt(column, slot);
    if (this.constant) {
      const known = this.searched(sheet.column(column), this.constant);
      judgeContents({ sheet, column }, slotCount, { into, judge, known });
    } else for (let slot = 0; slot < slotCount; slot++) into.put(slot, judge(slot));
  }

  /** The outcomes of all texts of a column, by code, where words are looked for within them. */
  private searched(store: Column, words: Words): Int32Array | undefined {
    const { is } = this.when;
    if ((is !== 'contains' && is !== 'lacks') || words.length === 0 || store.contents.count < MANY) return undefined;
    const contents = store.foldedContents(this.when);
    const [without, within] = is === 'contains' ? [-1, 0] : [0, -1];
    const { isText } = contents;
    const known = new Int32Array(store.contents.count).fill(UNKNOWN);
    for (let code = 0; code < known.length; code++) if (isText[code]) known[code] = without;
    for (const { folded } of words)
      if (folded) contents.forEachWith(folded, (code) => known[code] !== UNKNOWN && (known[code] = within));
    return known;
  }

  outcomeAt(column: number, slot: number): number {
    const { sheet } = this.context;
    const store = sheet.column(column);
    const tag = store.tags[slot];
    if (tag === TAG.blank || tag === TAG.error || tag === undefined) return -1;
    const words = this.constant ?? this.wordsAt(column, slot);
    if (words.length === 0) return -1;
    const shown = textAt(sheet, column, slot);
    const code = tag === TAG.text ? store.valueCodeAt(slot) : undefined;
    const folded = code === undefined ? foldText(shown, this.when) : store.foldedContents(this.when).textOf(code);
    return words.some(({ meets }) => meets(folded, shown)) !== isOpposite(this.when.is) ? 0 : -1;
  }

  edited(): 'this-cell' {
    return 'this-cell';
  }

  look(): undefined {
    return undefined;
  }

  explain(column: number, slot: number): Comparison {
    const shown = shownAt(this.context.sheet, column, slot);
    const words = this.constant ?? this.wordsAt(column, slot);
    const tag = this.context.sheet.column(column).tags[slot];
    const note =
      tag === TAG.blank
        ? 'a blank never matches'
        : tag === TAG.error
          ? 'an error never matches'
          : words.length
            ? undefined
            : 'there is no word to look for';
    const right = words.map((word) => `“${word.shown}”`).join(isOpposite(this.when.is) ? ' nor ' : ' or ') || 'no word';
    return { left: shown || 'blank', relation: TEXT_TESTS[this.when.is], right, ...(note ? { note } : {}) };
  }
}

function wordOf(value: CellValue): string | undefined {
  return value.kind === 'blank' || value.kind === 'error' ? undefined : shownText(value, null);
}

function meeting(word: string, when: TextWhen): ((folded: string, shown: string) => boolean) | undefined {
  if (when.is === 'pattern') {
    const pattern = word === '' ? undefined : compilePattern(word, when);
    return pattern && ((_, shown) => pattern.matcher(shown).find());
  }
  const wanted = foldText(word, when);
  if (wanted === '') return undefined;
  switch (when.is) {
    case 'contains':
    case 'lacks':
      return (folded) => folded.includes(wanted);
    case 'starts':
      return (folded) => folded.slice(0, wanted.length) === wanted;
    case 'ends':
      return (folded) => folded.slice(-wanted.length) === wanted;
    case 'equals':
    case 'differs':
      return (folded) => folded === wanted;
  }
}
