import type { RepeatWhen } from '../kinds/repeat';
import type { Evidence, ExampleCell } from './evidence';
import { sumOf, testLength, type NameLengths } from './shortness';

/**
 * Whether cells that are wanted occur several times, or once, and those that are not do otherwise. Which are the first
 * ones is found by evaluating. Only of one field; and of one that nobody pointed at only where most contents occur once,
 * since in the others nearly all is a duplicate.
 */
export function* repeatCandidates({ sheet, read, yes, no, isPointed }: Evidence): Iterable<RepeatWhen> {
  const [only, ...more] = read;
  if (!only || more.length || yes.length === 0) return;
  const folded = sheet.column(only.column).foldedContents();
  const ids = new Int32Array(sheet.slotCount);
  const idOf = ({ slot }: ExampleCell): number => folded.idAt(slot);
  const wanted = yes.map(idOf);
  const others = no.map(idOf).filter((id) => id > 0);
  const counts = new Uint32Array(folded.idCount);
  folded.countIds(only.slots, { into: ids, counts });
  const isRepeated = (id: number): boolean => (counts[id] ?? 0) > 1;
  const isUsual = counts.reduce((sum, count) => sum + Number(count === 1), 0) * 2 > only.slots.count();
  if (wanted.some((id) => id <= 0) || !(isPointed || isUsual)) return;
  if (wanted.every(isRepeated)) {
    if (!others.some(isRepeated)) yield { kind: 'repeat', is: 'repeated' };
    yield { kind: 'repeat', is: 'again' };
    yield { kind: 'repeat', is: 'first' };
  } else if (!wanted.some(isRepeated) && others.every(isRepeated)) yield { kind: 'repeat', is: 'unique' };
}

/** The length of a test for duplicates. */
export const repeatLength = ({ is, by }: RepeatWhen, of: NameLengths): number =>
  testLength(is) + sumOf(by ?? [], () => of.field);
