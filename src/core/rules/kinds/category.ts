import type Joi from 'joi';
import { itemAt } from '../../values/item-at';
import { lazySchema } from '../../lazy-schema';
import type { Look } from '../../looks/look';
import { hexSchema, lookSchema } from '../../looks/look-schema';
import { PALETTES, type PaletteName } from '../../looks/palettes';
import { shownApart, shownAt, textAt } from '../../sheet/shown-cell';
import type { CellBefore } from '../../sheet/effect';
import { BitSet } from '../../values/bit-set';
import { TAG } from '../../values/cell-value';
import { foldText } from '../../values/fold-text';
import { TextIndex } from '../../values/text-index';
import type { CompileContext } from '../compile/compile-context';
import { compareFolded } from '../compile/compare-values';
import { judgeContents } from '../compile/judge-contents';
import type { OutcomeColumn } from '../compile/outcome-column';
import type { Comparison, ConditionKind, Kernel, Invalidation } from './kind';
import type { Inputs } from '../terms';

export interface CategoryWhen {
  readonly kind: 'category';
  /** A look for each value. */
  readonly looks?: Readonly<Record<string, Look | null>>;
  /** Or a colour for each value that is found, one after another. */
  readonly palette?: PaletteName | readonly string[];
  /** In which order values take the colours: as they are first seen (default), or by the alphabet. */
  readonly order?: 'seen' | 'alphabet';
}

const paletteSchema = lazySchema<NonNullable<CategoryWhen['palette']>>(
  (joi) => joi.alternatives().try(joi.valid(...Object.keys(PALETTES)), joi.array().items(hexSchema(joi)).min(1)),
  `one of ${Object.keys(PALETTES).join(', ')}, or a list of colours`,
);

/** Every value its own look. */
export const category: ConditionKind<CategoryWhen> = {
  schema: lazySchema<CategoryWhen>((joi) =>
    joi
      .object<CategoryWhen>({
        kind: joi.valid('category').required(),
        looks: joi.object().pattern(joi.string(), lookSchema(joi).allow(null)),
        palette: paletteSchema(joi),
        order: joi.valid('seen', 'alphabet'),
      })
      .custom(checkLooks),
  ),
  outcomes: 'several',
  mapReferences: (when) => when,
  outcomeLooks: ({ looks, palette }) => (looks ? Object.values(looks) : colorsOf(palette).map((fill) => ({ fill }))),
  compile: (when, context) => new CategoryKernel(when, context),
  sentence: ({ looks }) =>
    looks ? `has the look of its value: ${Object.keys(looks).join(', ')}` : 'has the colour of its value',
  outcomeName: ({ looks }, outcome) => (looks ? (Object.keys(looks)[outcome] ?? '') : ''),
  defaults: () => ({ kind: 'category', palette: 'pastel' }),
  thresholds: () => [],
  isByRecord: ({ looks }) => looks !== undefined,
  examples: [
    {
      says: 'values meet whatever their case and spaces, numbers by what they show',
      when: { kind: 'category', looks: { '7': null, Weir: { fill: '#aaaaaa' } } },
      inputs: ['weir', ' WEIR ', '7', 'Mill', '', '#N/A'],
      outcomes: [1, 1, 0, -1, -1, -1],
    },
    {
      says: 'with a palette the values are numbered as they are seen',
      when: { kind: 'category', palette: ['#111111', '#222222'] },
      inputs: ['b', 'a', 'B', 'c', ''],
      outcomes: [0, 1, 0, 2, -1],
    },
  ],
};

function checkLooks(when: CategoryWhen, helpers: Joi.CustomHelpers): CategoryWhen | Joi.ErrorReport {
  if ((when.looks === undefined) === (when.palette === undefined))
    return helpers.message({ custom: '{{#label}} must have either "looks" or "palette"' });
  if (when.looks && when.order) return helpers.message({ custom: '{{#label}}.order goes with "palette" only' });
  const seen = new Map<string, string>();
  for (const name of Object.keys(when.looks ?? {})) {
    const folded = foldText(name);
    const other = seen.get(folded);
    if (other !== undefined)
      return helpers.message({
        custom: '{{#label}}.looks has two entries for one value, alike but for case, accents or spaces',
      });
    seen.set(folded, name);
  }
  return when;
}

const colorsOf = (palette: CategoryWhen['palette']): readonly string[] =>
  typeof palette === 'string' ? PALETTES[palette] : (palette ?? []);

class CategoryKernel implements Kernel {
  readonly inputs: Inputs = { sameRow: [], wholeColumns: [], cells: [] };
  /** The folded text and the name of each outcome, and where each text is. */
  private texts: string[] = [];
  private names: string[] = [];
  private index = this.freshIndex();
  private readonly looks: readonly (Look | null)[];

  constructor(
    private readonly when: CategoryWhen,
    private readonly context: CompileContext,
  ) {
    if (when.looks) for (const name of Object.keys(when.looks)) this.take(foldText(name), name);
    else this.takeSeen();
    const colors = colorsOf(when.palette);
    this.looks = when.looks
      ? Object.values(when.looks)
      : this.names.map((_, at) => ({ fill: itemAt(colors, at % colors.length) }));
  }

  private freshIndex(): TextIndex {
    return new TextIndex((outcome) => itemAt(this.texts, outcome));
  }

  private take(folded: string, name: string): void {
    this.index.set(folded, this.texts.length);
    this.texts.push(folded);
    this.names.push(name);
  }

  /** Finds the values in the cells read, row by row: each content of a column once. */
  private takeSeen(): void {
    const { sheet, cells } = this.context;
    const columns = cells.map(({ column, slots }) => ({
      column,
      slots,
      apart: shownApart(sheet, column),
      seen: new BitSet(),
    }));
    for (const { column, seen } of columns) seen.fit(sheet.column(column).contents.count);
    for (const slot of sheet.order)
      for (const { column, slots, apart, seen } of columns) {
        if (!slots.has(slot)) continue;
        const code = apart?.has(slot) ? undefined : sheet.column(column).valueCodeAt(slot);
        if (code !== undefined) {
          if (seen.has(code)) continue;
          seen.set(code, true);
        }
        const folded = this.foldedAt(column, slot);
        if (folded !== undefined && this.index.find(folded) < 0) this.take(folded, shownAt(sheet, column, slot).trim());
      }
    if (this.when.order === 'alphabet') this.sort();
  }

  private sort(): void {
    const { texts, names } = this;
    const sorted = Array.from(texts.keys()).sort((a, b) => compareFolded(itemAt(texts, a), itemAt(texts, b)));
    this.texts = [];
    this.names = [];
    this.index = this.freshIndex();
    for (const at of sorted) this.take(itemAt(texts, at), itemAt(names, at));
  }

  private foldedAt(column: number, slot: number): string | undefined {
    const { sheet } = this.context;
    const store = sheet.column(column);
    const tag = store.tags[slot];
    if (tag === TAG.blank || tag === TAG.error || tag === undefined) return undefined;
    return tag === TAG.text ? store.foldedAt(slot) : foldText(textAt(sheet, column, slot));
  }

  run(column: number, slotCount: number, into: OutcomeColumn): void {
    judgeContents({ sheet: this.context.sheet, column }, slotCount, {
      into,
      judge: (slot) => this.outcomeAt(column, slot),
    });
  }

  outcomeAt(column: number, slot: number): number {
    const folded = this.foldedAt(column, slot);
    return folded === undefined ? -1 : this.index.find(folded);
  }

  /** With a palette any content may change which values are seen, and in which order. */
  edited(column: number, slot: number, before: CellBefore): Invalidation {
    const store = this.context.sheet.column(column);
    const isSame = store.codes[slot] === before.code && Object.is(store.numbers[slot], before.number);
    return this.when.looks || isSame ? 'this-cell' : 'recompile';
  }

  look(outcome: number): Look | null {
    return this.looks[outcome] ?? null;
  }

  outcomeTold(outcome: number): string {
    return itemAt(this.names, outcome);
  }

  explain(column: number, slot: number): Comparison {
    const outcome = this.outcomeAt(column, slot);
    return {
      left: shownAt(this.context.sheet, column, slot) || 'blank',
      relation: outcome < 0 ? 'is none of' : 'is',
      right: outcome < 0 ? `the ${this.names.length} values` : itemAt(this.names, outcome),
    };
  }
}
