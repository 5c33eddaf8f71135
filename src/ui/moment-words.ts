/** A moment (milliseconds of the Unix epoch) in words, by the reader's clock: "26 Nov 2026, 11:05". */
export const momentWords = (epochMs: number): string =>
  new Date(epochMs).toLocaleString('en', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  });
