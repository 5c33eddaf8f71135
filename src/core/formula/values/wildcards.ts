import { foldCase } from '../../values/fold-text';
import { findUnits } from '../../values/find-text';

/** Letters one after another, of which null stands for any one. */
type Segment = readonly (string | null)[];

/**
 * Letters between two `*` where one of them is `?`: these are compared one by one from each place. A pattern with more
 * of them matches nothing.
 */
const MAX_WITH_GAPS = 64;

/**
 * A pattern in which `*` stands for any letters, `?` for one, and `~` before them for themselves (common practice),
 * case aside. `*` divides it into segments, and each is looked for once after the one before: what begins as early as
 * it can leaves the most to the next.
 */
export interface Wildcards {
  /** True for texts that are the pattern as a whole. */
  matches(text: string): boolean;
  /** The first match of the pattern, in code points from 0 at or after `from`; -1 where there is none. */
  find(text: string, from: number): number;
}

export function readWildcards(pattern: string): Wildcards {
  const segments = segmentsOf(foldCase(pattern));
  if (segments.some((segment) => segment.length > MAX_WITH_GAPS && hasGaps(segment)))
    return { matches: () => false, find: () => -1 };
  return {
    matches: (text) => matchesWhole(Array.from(foldCase(text)), segments),
    find: (text, from) => findFirst(Array.from(foldCase(text)), segments, from),
  };
}

function segmentsOf(pattern: string): Segment[] {
  let segment: (string | null)[] = [];
  const segments = [segment];
  const points = Array.from(pattern);
  for (let at = 0; at < points.length; at++) {
    const point = points[at] ?? '';
    const next = points[at + 1];
    if (point === '~' && (next === '*' || next === '?' || next === '~')) {
      segment.push(next);
      at++;
    } else if (point === '*') segments.push((segment = []));
    else segment.push(point === '?' ? null : point);
  }
  return segments;
}

const hasGaps = (segment: Segment): boolean => segment.includes(null);

function isAt(letters: readonly string[], segment: Segment, at: number): boolean {
  if (at < 0 || at + segment.length > letters.length) return false;
  for (let step = 0; step < segment.length; step++)
    if (segment[step] !== null && segment[step] !== letters[at + step]) return false;
  return true;
}

function findSegment(letters: readonly string[], segment: Segment, from: number): number {
  if (!hasGaps(segment)) return findUnits(listed(letters), listed(segment), from);
  for (let at = from; at + segment.length <= letters.length; at++) if (isAt(letters, segment, at)) return at;
  return -1;
}

const listed = (values: readonly unknown[]) => ({ length: values.length, at: (place: number) => values[place] });

/** The end of the last of some segments that follow one another with anything between; -1 where they do not. */
function endOfAll(letters: readonly string[], segments: readonly Segment[], from: number): number {
  let end = from;
  for (const segment of segments) {
    const at = findSegment(letters, segment, end);
    if (at < 0) return -1;
    end = at + segment.length;
  }
  return end;
}

function matchesWhole(letters: readonly string[], segments: readonly Segment[]): boolean {
  const [first = [], ...others] = segments;
  const last = others.pop();
  if (!isAt(letters, first, 0)) return false;
  if (last === undefined) return first.length === letters.length;
  const end = endOfAll(letters, others, first.length);
  return end >= 0 && letters.length - last.length >= end && isAt(letters, last, letters.length - last.length);
}

function findFirst(letters: readonly string[], segments: readonly Segment[], from: number): number {
  const [first = [], ...others] = segments;
  const at = findSegment(letters, first, from);
  return at < 0 || endOfAll(letters, others, at + first.length) < 0 ? -1 : at;
}
