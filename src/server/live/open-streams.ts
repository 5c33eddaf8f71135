import { processWide } from '../process-wide';

/** How many streams of events each person or visitor has open in this process. */
export const openStreams = (): Map<string, number> => processWide('open-streams', () => new Map<string, number>());

/** Called before the server stops: each stream ends, and its reader connects again. */
export const stoppingStreams = (): Set<() => void> => processWide('stopping-streams', () => new Set<() => void>());
