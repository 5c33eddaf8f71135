import { TAG, type CellValue } from '../../values/cell-value';
import { compareValues } from '../compile/compare-values';
import type { CompareWhen } from '../kinds/compare';
import { operandList, type FieldOperand } from '../terms';
import type { Evidence, ExampleCell, Extent } from './evidence';
import { sensibleNumbers } from './sensible-numbers';
import { operandLength, sumOf, testLength, type NameLengths } from './shortness';

type OneSided = '<' | '<=' | '>' | '>=';

/** Limits that are tried where one is wanted, and at each end where two are. */
const MAX_LIMITS = 14;
const MAX_ENDS = 5;

/** Comparisons that hold for all cells that are wanted and for none that is not. */
export function* compareCandidates(evidence: Evidence): Iterable<CompareWhen> {
  yield* equalities(evidence);
  const wanted = evidence.yes.map((cell) => evidence.numberOf(cell));
  if (!wanted.some(Number.isNaN)) {
    const others = evidence.no.map((cell) => evidence.numberOf(cell)).filter((number) => !Number.isNaN(number));
    const all = evidence.extent();
    yield* limits({ wanted, others, all });
    yield* ranges({ wanted, others, all });
    if (all.least < 0) {
      const greatest = Math.max(-all.least, all.greatest);
      const sizes = { wanted: wanted.map(Math.abs), others: others.map(Math.abs), all: { least: 0, greatest } };
      for (const candidate of limits(sizes)) yield { ...candidate, magnitude: true };
    }
  }
  yield* otherFields(evidence);
}

/** Numbers that are wanted, others that are not, and the ends of all that are read. */
interface NumbersKnown {
  readonly wanted: readonly number[];
  readonly others: readonly number[];
  readonly all: Extent;
}

/** One value that all cells have that are wanted, or all that are not. */
function* equalities(evidence: Evidence): Iterable<CompareWhen> {
  for (const [is, cells] of [
    ['=', evidence.yes],
    ['!=', evidence.no],
  ] as const) {
    const values = cells.map((cell) => evidence.valueOf(cell)).filter(({ kind }) => is === '=' || kind !== 'blank');
    const [first] = values;
    const operand = first && literal(first);
    if (first && operand !== undefined && values.every((value) => compareValues(value, first) === 0))
      yield { kind: 'compare', is, to: operand };
  }
}

function literal(value: CellValue): number | string | boolean | undefined {
  if (value.kind === 'number') return value.number;
  if (value.kind === 'logical') return value.logical;
  return value.kind === 'text' ? value.text.trim() || undefined : undefined;
}

/** Limits above or below which all numbers lie that are wanted, and none that is not. */
function* limits({ wanted, others, all }: NumbersKnown): Iterable<CompareWhen & { readonly is: OneSided }> {
  const [least, greatest] = [Math.min(...wanted), Math.max(...wanted)];
  if (others.every((other) => other > greatest)) {
    const high = others.length ? Math.min(...others) : all.greatest;
    const interval = { low: greatest, high };
    for (const to of sensibleNumbers({ ...interval, takesLow: false, takesHigh: true }, MAX_LIMITS))
      yield { kind: 'compare', is: '<', to };
    for (const to of sensibleNumbers({ ...interval, takesLow: true, takesHigh: others.length === 0 }, MAX_LIMITS))
      yield { kind: 'compare', is: '<=', to };
  }
  if (others.every((other) => other < least)) {
    const low = others.length ? Math.max(...others) : all.least;
    const interval = { low, high: least };
    for (const to of sensibleNumbers({ ...interval, takesLow: true, takesHigh: false }, MAX_LIMITS))
      yield { kind: 'compare', is: '>', to };
    for (const to of sensibleNumbers({ ...interval, takesLow: others.length === 0, takesHigh: true }, MAX_LIMITS))
      yield { kind: 'compare', is: '>=', to };
  }
}

function* ranges({ wanted, others, all }: NumbersKnown): Iterable<CompareWhen> {
  const [least, greatest] = [Math.min(...wanted), Math.max(...wanted)];
  if (others.every((other) => other < least || other > greatest)) {
    const [below, above] = [others.filter((other) => other < least), others.filter((other) => other > greatest)];
    const low = { low: below.length ? Math.max(...below) : all.least, high: least };
    const high = { low: greatest, high: above.length ? Math.min(...above) : all.greatest };
    for (const from of sensibleNumbers({ ...low, takesLow: below.length === 0, takesHigh: true }, MAX_ENDS))
      for (const to of sensibleNumbers({ ...high, takesLow: true, takesHigh: above.length === 0 }, MAX_ENDS))
        yield { kind: 'compare', is: 'between', to: [from, to] };
  }
  if (others.length === 0) return;
  const [first, last] = [Math.min(...others), Math.max(...others)];
  const [below, above] = [wanted.filter((number) => number < first), wanted.filter((number) => number > last)];
  if (below.length === 0 || above.length === 0 || below.length + above.length < wanted.length) return;
  const low = { low: Math.max(...below), high: first, takesLow: false, takesHigh: true };
  const high = { low: last, high: Math.min(...above), takesLow: true, takesHigh: false };
  for (const from of sensibleNumbers(low, MAX_ENDS))
    for (const to of sensibleNumbers(high, MAX_ENDS)) yield { kind: 'compare', is: 'outside', to: [from, to] };
}

const isHeld = {
  '=': (sign: number) => sign === 0,
  '!=': (sign: number) => sign < 0 || sign > 0,
  '<': (sign: number) => sign < 0,
  '<=': (sign: number) => sign <= 0,
  '>': (sign: number) => sign > 0,
  '>=': (sign: number) => sign >= 0,
} as const;
const RELATIONS = ['<', '>', '=', '!=', '<=', '>='] as const;

/** Comparisons with another field of the same record, as it is, multiplied or moved. */
function* otherFields(evidence: Evidence): Iterable<CompareWhen> {
  const { sheet, read, yes, no } = evidence;
  if (yes.length === 0) return;
  for (let column = 0; column < sheet.fields.length; column++) {
    if (read.some((each) => each.column === column) || !isComparable(evidence, column)) continue;
    const { id: field } = sheet.field(column);
    const signOf = (cell: ExampleCell) =>
      compareValues(evidence.valueOf(cell), sheet.column(column).valueAt(cell.slot));
    const [wanted, others] = [yes.map(signOf), no.map(signOf)];
    const isText = yes.some(({ column: own, slot }) => sheet.column(own).tags[slot] === TAG.text);
    for (const is of isText ? (['=', '!='] as const) : RELATIONS)
      if (wanted.every(isHeld[is]) && !others.some(isHeld[is])) yield { kind: 'compare', is, to: { field } };
    yield* scaled(evidence, column);
  }
}

/** Whether the cells that are wanted have values of the same type there, one at least. */
function isComparable({ sheet, yes }: Evidence, column: number): boolean {
  const { tags } = sheet.column(column);
  return yes.every((cell) => {
    const tag = sheet.column(cell.column).tags[cell.slot];
    return tag === tags[cell.slot] && tag !== TAG.blank && tag !== TAG.error;
  });
}

/** The other field times a factor, or plus an amount: limits of the quotients and of the differences. */
function* scaled(evidence: Evidence, column: number): Iterable<CompareWhen> {
  const { sheet, yes, no } = evidence;
  const { id: field } = sheet.field(column);
  const store = sheet.column(column);
  const pairs = (cells: readonly ExampleCell[]) =>
    cells
      .map((cell) => ({
        number: evidence.numberOf(cell),
        other: store.tags[cell.slot] === TAG.number ? store.numberAt(cell.slot) : NaN,
      }))
      .filter(({ number, other }) => !Number.isNaN(number + other));
  const [wanted, others] = [pairs(yes), pairs(no)];
  if (wanted.length < yes.length || others.length === 0) return;
  const known = (of: (pair: { number: number; other: number }) => number): NumbersKnown => {
    const all = [...wanted, ...others].map(of);
    return {
      wanted: wanted.map(of),
      others: others.map(of),
      all: { least: Math.min(...all), greatest: Math.max(...all) },
    };
  };
  const asOperand = (operand: FieldOperand, is: OneSided): CompareWhen => ({ kind: 'compare', is, to: operand });
  if ([...wanted, ...others].every(({ other }) => other > 0))
    for (const { is, to } of limits(known(({ number, other }) => number / other)))
      if (typeof to === 'number' && to > 0 && to !== 1) yield asOperand({ field, times: to }, is);
  for (const { is, to } of limits(known(({ number, other }) => number - other)))
    if (typeof to === 'number' && to !== 0) yield asOperand({ field, plus: to }, is);
}

/** Bits for one exact number instead of a limit, and for comparing sizes without their sign. */
const EXACT_BITS = 3;
const MAGNITUDE_BITS = 3;

/** The length of a comparison. */
export const compareLength = ({ is, to, magnitude }: CompareWhen, of: NameLengths): number =>
  testLength(is) +
  (is === '=' && typeof to === 'number' ? EXACT_BITS : 0) +
  sumOf(operandList(to), (operand) => operandLength(operand, of)) +
  (magnitude ? MAGNITUDE_BITS : 0);
