/** Spans that a picture of time has at most. */
const MAX_SPANS = 60;
/** Their widths in days: an hour, a quarter of a day, a day, a week, about a month, a quarter, a year. */
const WIDTHS = [1 / 24, 0.25, 1, 7, 30.4375, 91.3125, 365.25];

/** Spans of equal width from one moment to another. */
export interface SpansOfTime {
  readonly width: number;
  /** Where each begins. */
  readonly edges: readonly number[];
  /** The number of the span that holds a moment; the first or last one for moments outside. */
  at(moment: number): number;
}

/** Cuts a time (serial dates) into at most sixty spans of a usual width. */
export function spansOfTime(from: number, to: number): SpansOfTime {
  const width = WIDTHS.find((each) => (to - from) / each <= MAX_SPANS) ?? (to - from) / MAX_SPANS;
  const first = Math.floor(from / width) * width;
  const count = Math.max(1, Math.ceil((to - first) / width));
  return {
    width,
    edges: Array.from({ length: count }, (_, at) => first + at * width),
    at: (moment) => Math.min(count - 1, Math.max(0, Math.floor((moment - first) / width))),
  };
}
