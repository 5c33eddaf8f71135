import { randomUUID } from 'node:crypto';
import { TOTAL_FUNCTIONS, type TotalFunction } from '../core/edit/totals';
import { readMessage } from '../protocol/parse-message';
import { itemAt } from '../core/values/item-at';
import { isFilledRecord, jsonValue } from '../core/exchange/json/records-of-sheet';
import { Evaluation } from '../core/rules/evaluate/evaluation';
import { columnLetters } from '../core/sheet/address';
import type { CellValue } from '../core/values/cell-value';
import { serialInZone } from '../core/values/dates/serial-in-zone';
import { valueInput } from '../core/values/value-input';
import { LOGGER_WAYS, type LoggerWay } from '../demo/logger/device-readings';
import { runLogger } from '../demo/logger/run-logger';
import type { RecordValue } from '../protocol/programs/endpoints';
import { BadInput } from './bad-input';
import type { FileOptions } from './read-contents';
import { readSheetFile } from './read-sheet-file';

/** Records that are sent at once. */
const AT_ONCE = 1000;

export interface Server {
  readonly url?: string;
  readonly token?: string;
}

/** Where the app is, and the token that the environment or the command line gives. Throws a BadInput. */
function serverOf({ url = 'http://127.0.0.1:4380', token = process.env.AUXESIS_TOKEN }: Server): {
  readonly address: string;
  readonly token: string;
} {
  if (!/^https?:\/\/\S+$/.test(url))
    throw new BadInput('command line', `--url is "${url}"; expected an address such as http://127.0.0.1:4380`);
  if (!token)
    throw new BadInput(
      'command line',
      'there is no token: give it in AUXESIS_TOKEN, or with --token. Tokens are made under Share, Programs',
    );
  return { address: url.replace(/\/$/, ''), token };
}

interface PushOptions {
  readonly key?: readonly string[];
  /** Totals under the records, such as Depth=sum. */
  readonly total?: readonly string[];
}

/**
 * `push FILE`: enters the records of a file into a sheet of a server, those that are there by their key. Gives what
 * became of them as JSON text.
 */
export async function push(
  [path = '']: readonly string[],
  { sheet, key, total = [], url, token, ...options }: FileOptions & Server & PushOptions,
): Promise<string> {
  const server = serverOf({ ...(url ? { url } : {}), ...(token ? { token } : {}) });
  if (sheet === undefined)
    throw new BadInput('command line', 'say with --sheet which sheet: what its address ends with');
  const totals = total.length ? { totals: Object.fromEntries(total.map(totalOption)) } : {};
  const records = recordsOf(path, options);
  const counts = { inserted: 0, updated: 0, unchanged: 0 };
  for (let at = 0; at < records.length; at += AT_ONCE) {
    const isLast = at + AT_ONCE >= records.length;
    const body = {
      ...(key?.length ? { key } : {}),
      records: records.slice(at, at + AT_ONCE),
      ...(isLast ? totals : {}),
    };
    const answer = await sendRecords({ ...server, sheet, done: at }, body);
    counts.inserted += answer.inserted;
    counts.updated += answer.updated;
    counts.unchanged += answer.unchanged;
  }
  return JSON.stringify(counts);
}

/** A total as the command line gives it: the label, and after the last sign what it is. Throws a BadInput. */
function totalOption(given: string): readonly [string, TotalFunction] {
  const at = given.lastIndexOf('=');
  const is = TOTAL_FUNCTIONS.find((name) => name === given.slice(at + 1));
  if (at <= 0 || !is)
    throw new BadInput(
      'command line',
      `--total is "${given}"; expected a label and one of ${TOTAL_FUNCTIONS.join(', ')}, such as Depth=sum`,
    );
  return [given.slice(0, at), is];
}

/** The records of a file by label: what formulas give in their place. */
function recordsOf(path: string, options: FileOptions): Record<string, RecordValue>[] {
  const { sheet } = readSheetFile(path, options);
  const { calculation } = new Evaluation(sheet, {}, { now: serialInZone(options.nowMs, options.zone) });
  calculation.calculateAll();
  const labels = sheet.fields.map((_, column) => sheet.labelOf(column) ?? columnLetters(column));
  return sheet.order
    .filter((slot) => isFilledRecord(sheet, slot))
    .map((slot) =>
      Object.fromEntries(
        sheet.columns.map((store, column) => [itemAt(labels, column), sentValue(store.valueAt(slot))]),
      ),
    );
}

/** Text that the server would read as something else, such as 007, is sent as it would be typed. */
const sentValue = (value: CellValue): RecordValue => (value.kind === 'text' ? valueInput(value) : jsonValue(value));

type Counts = Record<'inserted' | 'updated' | 'unchanged', number>;

interface Target {
  readonly address: string;
  readonly token: string;
  readonly sheet: string;
  /** Records that were entered before. */
  readonly done: number;
}

async function sendRecords({ address, token, sheet, done }: Target, body: object): Promise<Counts> {
  const before = done ? `; the ${done} records before are entered` : '';
  const response = await fetch(`${address}/api/v1/sheets/${encodeURIComponent(sheet)}/records`, {
    method: 'PUT',
    headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json', 'idempotency-key': randomUUID() },
    body: JSON.stringify(body),
  }).catch((error: unknown) => {
    throw new BadInput(address, `the server cannot be reached${before}`, { cause: error });
  });
  const answer = await readMessage<Counts & { readonly refused?: string }>(response).catch(() => null);
  if (!response.ok || !answer)
    throw new BadInput(
      `${address}, sheet ${sheet}`,
      (answer?.refused ?? `the server answered ${response.status}`) + before,
    );
  return answer;
}

interface LoggerArguments extends Server {
  readonly sheet?: string;
  readonly way?: string;
  readonly every?: string;
  readonly for?: string;
}

/**
 * `logger`: stands in for field devices until its time is over, it is stopped, or its token is revoked. Gives the
 * readings that were sent as JSON text.
 */
export async function logger({
  sheet = 'station-readings',
  way = 'mixed',
  every = '1',
  for: seconds,
  ...given
}: LoggerArguments): Promise<string> {
  const { address, token } = serverOf(given);
  if (!Object.hasOwn(LOGGER_WAYS, way))
    throw new BadInput('command line', `--way is "${way}"; expected ${Object.keys(LOGGER_WAYS).join(', ')}`);
  const everyMs = secondsOf('--every', every);
  const forMs = seconds === undefined ? Infinity : secondsOf('--for', seconds);
  const stop = new AbortController();
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => stop.abort());
  // The parent process holds our standard input: when that is closed, this process ends.
  if (!process.stdin.isTTY && seconds === undefined) process.stdin.on('end', () => stop.abort()).resume();
  const { counts, end } = await runLogger({
    address,
    sheet,
    token,
    way: way as LoggerWay,
    everyMs,
    forMs,
    signal: stop.signal,
  });
  process.stdin.destroy();
  if (typeof end === 'object' && counts.readings === 0) throw new BadInput(`${address}, sheet ${sheet}`, end.refused);
  return JSON.stringify(counts);
}

function secondsOf(name: string, text: string): number {
  const seconds = Number(text);
  if (!(seconds > 0)) throw new BadInput('command line', `${name} is "${text}"; expected seconds, such as 1 or 0.2`);
  return seconds * 1000;
}
