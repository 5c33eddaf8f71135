import type { Look } from '../../looks/look';
import { textAt } from '../../sheet/shown-cell';
import { TAG } from '../../values/cell-value';
import { foldText } from '../../values/fold-text';
import { itemAt } from '../../values/item-at';
import type { BandsWhen } from '../kinds/bands';
import type { CategoryWhen } from '../kinds/category';
import type { Evidence } from './evidence';
import { sensibleNumbers } from './sensible-numbers';
import { operandLength, sumOf, type NameLengths } from './shortness';

/** Numbers that are tried as a cut: fewer where there are many cuts. */
const MAX_CUTS = 8;
/** Combinations of cuts. */
const MAX_COMBINED = 64;
/** Values that each have a look. */
const MAX_VALUES = 40;

/** Bands of numbers: each look between two cuts. Several looks are needed, with no number of one among those of another. */
export function* bandsCandidates(evidence: Evidence): Iterable<BandsWhen> {
  if (evidence.wanted.length < 2) return;
  const spans: { look: Look | null; low: number; high: number }[] = [];
  const add = (look: Look | null, numbers: readonly number[]): boolean => {
    const known = numbers.filter((number) => !Number.isNaN(number));
    if (known.length) spans.push({ look, low: Math.min(...known), high: Math.max(...known) });
    return known.length === numbers.length;
  };
  for (const { look, cells } of evidence.wanted)
    if (
      !add(
        look,
        cells.map((cell) => evidence.numberOf(cell)),
      )
    )
      return;
  add(
    null,
    evidence.no.map((cell) => evidence.numberOf(cell)),
  );
  spans.sort((a, b) => a.low - b.low);
  const gaps = spans.slice(1).map((span, at) => ({ low: itemAt(spans, at).high, high: span.low }));
  if (gaps.some(({ low, high }) => low >= high)) return;
  const looks = spans.map(({ look }) => look);
  for (const edge of ['lower', 'upper'] as const) {
    const isLower = edge === 'lower';
    const most = Math.max(1, Math.min(MAX_CUTS, Math.floor(MAX_COMBINED ** (1 / gaps.length))));
    const choices = gaps.map((gap) => sensibleNumbers({ ...gap, takesLow: !isLower, takesHigh: isLower }, most));
    for (const cuts of combined(choices)) yield { kind: 'bands', cuts, ...(isLower ? {} : { edge: 'upper' }), looks };
  }
}

/** Every choice of one number of each list. */
const combined = (choices: readonly (readonly number[])[]): number[][] =>
  choices.reduce<number[][]>((known, each) => known.flatMap((cuts) => each.map((cut) => [...cuts, cut])), [[]]);

/** A look for each value: no value may be among the examples of two looks, or among cells that are not wanted. */
export function* categoryCandidates(evidence: Evidence): Iterable<CategoryWhen> {
  const { wanted, no, sheet } = evidence;
  if (wanted.length < 2) return;
  const textOf = ({ column, slot }: (typeof no)[number]): string =>
    sheet.column(column).tags[slot] === TAG.error ? '' : textAt(sheet, column, slot).trim();
  const looks = new Map<string, { text: string; look: Look }>();
  for (const { look, cells } of wanted)
    for (const cell of cells) {
      const text = textOf(cell);
      const known = looks.get(foldText(text));
      if (text === '' || (known && known.look !== look)) return;
      looks.set(foldText(text), known ?? { text, look });
    }
  if (looks.size > MAX_VALUES || no.some((cell) => looks.has(foldText(textOf(cell))))) return;
  yield { kind: 'category', looks: Object.fromEntries([...looks.values()].map(({ text, look }) => [text, look])) };
}

/** The length of the cuts between bands. */
export const bandsLength = ({ cuts, edge }: BandsWhen, of: NameLengths): number =>
  sumOf(cuts, (cut) => operandLength(cut, of)) + (edge ? 1 : 0);

/** The length of the values that each have a look. */
export const categoryLength = ({ looks = {} }: CategoryWhen, of: NameLengths): number =>
  sumOf(Object.keys(looks), () => of.value);
