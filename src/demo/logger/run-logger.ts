import { setTimeout as pause } from 'node:timers/promises';
import { Devices, DEVICE_KEY, type LoggerWay } from './device-readings';

export interface LoggerOptions {
  /** Where the app is, such as http://127.0.0.1:4380. */
  readonly address: string;
  readonly sheet: string;
  readonly token: string;
  readonly way: LoggerWay;
  /** Between one step and the next. */
  readonly everyMs: number;
  /** Ends it by itself; Infinity goes on until it is stopped. */
  readonly forMs: number;
  readonly seed?: number;
  readonly signal?: AbortSignal;
}

/** The readings that were sent, and the server's answers. */
export interface LoggerCounts {
  requests: number;
  /** Readings that were sent and taken. */
  readings: number;
  inserted: number;
  updated: number;
  unchanged: number;
  /** Requests that were sent once more, since the server did not answer. */
  retried: number;
}

/** Why a logger ended. */
export type LoggerEnd = 'over' | 'stopped' | { readonly refused: string };

const RETRY_MS = 1000;
/** Waits, unless it is stopped. */
const rest = (ms: number, signal?: AbortSignal): Promise<void> =>
  pause(ms, undefined, signal ? { signal } : {}).catch(() => {});

/**
 * Stands in for field devices: sends readings through the HTTP interface, each request under a key of its own, so that
 * one whose answer was lost is sent again and taken once. Ends when its time is over, when it is stopped, or when its
 * token is revoked.
 */
export async function runLogger(
  options: LoggerOptions,
  tell: (counts: LoggerCounts) => void = () => {},
): Promise<{ readonly counts: LoggerCounts; readonly end: LoggerEnd }> {
  const { way, seed, everyMs, forMs, signal } = options;
  const devices = new Devices(way, seed);
  const counts: LoggerCounts = { requests: 0, readings: 0, inserted: 0, updated: 0, unchanged: 0, retried: 0 };
  const began = Date.now();
  while (!signal?.aborted) {
    if (Date.now() - began >= forMs) return { counts, end: 'over' };
    const stepped = Date.now();
    const records = devices.next(new Date(stepped).toISOString().slice(0, 16).replace('T', ' '));
    if (records.length) {
      const refused = await send(options, records, counts);
      if (refused !== null) return { counts, end: { refused } };
      tell(counts);
    }
    await rest(Math.max(0, everyMs - (Date.now() - stepped)), signal);
  }
  return { counts, end: 'stopped' };
}

interface Answer {
  readonly inserted: number;
  readonly updated: number;
  readonly unchanged: number;
}

/** Sends readings until they are taken; gives why the server does not take any. */
async function send(
  { address, sheet, token, signal }: LoggerOptions,
  records: readonly object[],
  counts: LoggerCounts,
): Promise<string | null> {
  const request: RequestInit = {
    method: 'PUT',
    headers: {
      authorization: `Bearer ${token}`,
      'content-type': 'application/json',
      'idempotency-key': crypto.randomUUID(),
    },
    body: JSON.stringify({ key: DEVICE_KEY, records }),
  };
  for (;;) {
    counts.requests++;
    const response = await fetch(`${address}/api/v1/sheets/${encodeURIComponent(sheet)}/records`, request).catch(
      () => null,
    );
    if (response?.ok) {
      const { inserted, updated, unchanged } = (await response.json()) as Answer;
      counts.readings += records.length;
      counts.inserted += inserted;
      counts.updated += updated;
      counts.unchanged += unchanged;
      return null;
    }
    if (response && response.status < 500 && response.status !== 429)
      return ((await response.json()) as { readonly refused: string }).refused;
    if (signal?.aborted) return 'it was stopped while the server did not answer';
    counts.retried++;
    await rest(Number(response?.headers.get('retry-after') ?? 0) * 1000 || RETRY_MS, signal);
  }
}
