import fc from 'fast-check';
import { anyOperation, anyRule, makeSheet } from '../../test/support/arbitrary-sheet';
import { BadFile } from '../../src/core/exchange/bad-file';
import { readCsv } from '../../src/core/exchange/csv/read-csv';
import { EXPORT_FORMATS } from '../../src/core/exchange/export-formats';
import { exportSource } from '../../src/core/exchange/export-source';
import { jsonTable } from '../../src/core/exchange/json/read-json';
import { readWorkbook } from '../../src/core/exchange/workbook/read-workbook';
import { parseFormula } from '../../src/core/formula/syntax/parse-formula';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { readRuleSet } from '../../src/core/rules/shape/read-rule-set';
import { changeSchema } from '../../src/protocol/change-schema';
import { readArchiveLine } from '../../src/protocol/archive-schema';
import { Instance } from './instance';

/** How long each part goes on. */
const SECONDS = 20;

interface Slowest {
  ms: number;
  input: string;
}

interface Fuzzed {
  readonly what: string;
  readonly tried: number;
  readonly taken: number;
  readonly slowest: Slowest;
  /** The failure, with the input. */
  readonly failure: string | null;
}

type Attempt<T> = (value: T) => Promise<boolean> | boolean;

/** Tries values until time is up. `attempt` gives whether the value was taken; that it throws is a failure. */
async function fuzz<T>(what: string, values: fc.Arbitrary<T>, attempt: Attempt<T>): Promise<Fuzzed> {
  let [tried, taken] = [0, 0];
  const slowest: Slowest = { ms: 0, input: '' };
  const failure = { text: null as string | null };
  const end = Date.now() + SECONDS * 1000;
  const property = fc.asyncProperty(values, async (value) => {
    if (Date.now() > end) return;
    const before = performance.now();
    if (await attempt(value)) taken++;
    const ms = performance.now() - before;
    tried++;
    if (ms > slowest.ms && tried > 20) Object.assign(slowest, { ms, input: inShort(value) });
  });
  while (Date.now() < end && failure.text === null) {
    const { failed, counterexample, errorInstance } = await fc.check(property, {
      numRuns: 500,
      interruptAfterTimeLimit: end - Date.now() + 100,
      markInterruptAsFailure: false,
    });
    if (failed)
      failure.text = `${errorInstance instanceof Error ? errorInstance.message : String(errorInstance)} at ${inShort(counterexample)}`;
  }
  return { what, tried, taken, slowest, failure: failure.text };
}

function inShort(value: unknown): string {
  const text = value instanceof Uint8Array ? `${value.length} bytes` : (JSON.stringify(value) ?? String(value));
  return text.length > 60 ? `${text.slice(0, 60)}… (${text.length} characters)` : text;
}

const PIECES = [
  '=',
  '(',
  ')',
  ';',
  ',',
  '+',
  '-',
  '*',
  '/',
  '^',
  '%',
  '&',
  '<>',
  '>=',
  '"',
  "'",
  '{',
  '}',
  '|',
  ':',
  '!',
  '~',
  '[.',
  ']',
  '$',
  'A1',
  'B2:C9',
  'B:B',
  '4:4',
  'SUM(',
  'IF(',
  'SUMPRODUCT(',
  'INDIRECT(',
  'OFFSET(',
  'REPT("x";',
  'COUNTIF(A:A;',
  '"a"',
  '1',
  '1e308',
  '9999999',
  'TRUE',
  '#N/A',
  '⟦f1~r1⟧',
  ' ',
  '\n',
  '😀',
];
const formulas = fc.oneof(
  fc.array(fc.constantFrom(...PIECES), { maxLength: 40 }).map((pieces) => `=${pieces.join('')}`),
  fc.string({ unit: 'binary', maxLength: 200 }).map((text) => `=${text}`),
  fc
    .tuple(fc.constantFrom('(', '-', '1+', 'IF(1;', '{', '"', 'A1:'), fc.nat(9000))
    .map(([piece, count]) => `=${piece.repeat(count)}`),
);
const texts = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 400 }),
  fc
    .tuple(fc.constantFrom(' ', ',', '"', '\n', '1', 'a\t', '{', '[', '\\'), fc.nat(100_000))
    .map(([piece, count]) => piece.repeat(count)),
);

/** JSON with one part replaced by another. */
const mutated = (base: object): fc.Arbitrary<unknown> =>
  fc.tuple(fc.array(fc.nat(8), { maxLength: 5 }), fc.anything({ maxDepth: 2 })).map(([path, part]) => {
    const copy = structuredClone(base) as Record<string, unknown>;
    let at: Record<string, unknown> = copy;
    for (const step of path) {
      const keys = Object.keys(at);
      const key = keys[step % Math.max(1, keys.length)];
      if (key === undefined || typeof at[key] !== 'object' || at[key] === null) break;
      at = at[key] as Record<string, unknown>;
    }
    const keys = Object.keys(at);
    const key = keys[(path[0] ?? 0) % Math.max(1, keys.length)];
    if (key !== undefined) at[key] = part;
    return copy;
  });

/** Bytes with some changed, left out or cut off. */
const damaged = (bytes: Uint8Array): fc.Arbitrary<Uint8Array> =>
  fc
    .tuple(fc.array(fc.tuple(fc.nat(bytes.length - 1), fc.nat(255)), { maxLength: 12 }), fc.nat(bytes.length))
    .map(([changes, cut]) => {
      const copy = bytes.slice(0, changes.length % 3 === 0 ? cut : bytes.length);
      for (const [at, value] of changes) if (at < copy.length) copy[at] = value;
      return copy;
    });

/** An exception may report only faults of the file itself. */
function taking(read: () => unknown): boolean {
  try {
    read();
    return true;
  } catch (error) {
    if (error instanceof BadFile) return false;
    throw error;
  }
}

/** A workbook as it is written here. */
function workbook(format: 'ooxml' | 'odf'): Uint8Array {
  const sheet = makeSheet(['5', 'x', '=A2+1', '2026-03-08', '70%']);
  const { parts } = EXPORT_FORMATS[format].write(
    exportSource(new Evaluation(sheet, {}), { name: 'Fuzzed', looks: {} }),
  );
  const all = [...parts].map((part) => (typeof part === 'string' ? new TextEncoder().encode(part) : part));
  return Uint8Array.from(all.flatMap((part) => [...part]));
}

/** Fuzzes what people and programs can send; prints how much was tried and what took longest. */
export async function fuzzAll(root: string): Promise<{ text: string; isGood: boolean }> {
  const rule = {
    format: 'auxesis-rules',
    version: 1,
    rules: [
      {
        id: 'r',
        name: 'r',
        reads: { fields: ['a'] },
        when: { kind: 'bands', cuts: [1, { percentile: 5 }], looks: [{ bold: true }, null, { fill: '#ffffff' }] },
        paints: 'record',
      },
    ],
  };
  const row = { row: { id: 'r', key: 'a0', role: 'record', cells: { f: '1' }, about: { heightPx: 20 } } };
  const results = [
    await fuzz('formulas: read, and calculated in a sheet', formulas, (formula) => {
      const { diagnostics } = parseFormula(formula);
      const sheet = makeSheet(['5', 'x', formula]);
      void new Evaluation(sheet, {}, { now: 46_089.5 });
      return diagnostics.length === 0;
    }),
    await fuzz('rule files', fc.oneof(mutated(rule), fc.anything()), (file) => {
      const read = readRuleSet(file);
      return !('message' in read);
    }),
    await fuzz('active rules', anyRule, (one) => {
      const evaluation = new Evaluation(makeSheet(), {}, { now: 46_089.5 });
      evaluation.setRules([{ ...one, on: true }]);
      return evaluation.activeRules[0]!.problem === null;
    }),
    await fuzz('separated values', texts, (text) => !('message' in readCsv(text, ','))),
    await fuzz('JSON', texts, (text) => taking(() => jsonTable(text))),
    await fuzz('archives, line by line', mutated(row), (line) =>
      taking(() => readArchiveLine(JSON.stringify(line) ?? '', 2)),
    ),
    await fuzz('workbooks of ISO/IEC 29500', damaged(workbook('ooxml')), (bytes) =>
      taking(() => readWorkbook(bytes).sheets.forEach((one) => one.read())),
    ),
    await fuzz('documents of ISO/IEC 26300', damaged(workbook('odf')), (bytes) =>
      taking(() => readWorkbook(bytes).sheets.forEach((one) => one.read())),
    ),
    await fuzz(
      'changes, by their schema',
      fc.oneof(
        mutated({ id: 'c', operations: [{ kind: 'set-cells', cells: [{ row: 'r', field: 'f', input: '1' }] }] }),
        fc.anything(),
      ),
      (change) => !changeSchema.validate(change).error,
    ),
    ...(await fuzzServer(root)),
  ];
  const lines = results.map(
    ({ what, tried, taken, slowest, failure }) =>
      `| ${what} | ${tried.toLocaleString('en')} | ${taken.toLocaleString('en')} | ${slowest.ms.toFixed(0)} ms | ${failure === null ? '' : `**${failure}** `}${slowest.input.replaceAll('|', '\\|').replaceAll('`', "'")} |`,
  );
  return {
    text: ['| what | tried | taken | slowest | its input |', '| --- | --- | --- | --- | --- |', ...lines].join('\n'),
    isGood: results.every(({ failure }) => failure === null),
  };
}

const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE', 'HEAD', 'OPTIONS'] as const;
const PATHS = [
  '',
  'changes',
  'packed',
  'painted?theme=light&as=viewer',
  'painted/judge?as=filler',
  'history',
  'history/1',
  'past?until=3',
  'presence',
  'findings',
  'findings/settings',
  'findings/notes',
  'personal-rules',
  'sharing/links',
  'sharing/invitations',
  'programs',
  'rule-sets',
  'archive',
  'logger',
] as const;

async function fuzzServer(root: string): Promise<Fuzzed[]> {
  const instance = await Instance.make({ root, name: `drill-fuzz-${process.pid}` });
  instance.prepare();
  try {
    await instance.start();
    const cookie = await instance.signIn();
    const sheet = await instance.makeSheet(cookie);
    const headers = { 'content-type': 'application/json', cookie };
    const send = async (path: string, init: RequestInit): Promise<number> => {
      const answer = await fetch(instance.address + path, { ...init, signal: AbortSignal.timeout(20_000) });
      await answer.body?.cancel();
      // Every answer has words, whatever was sent.
      if (answer.status >= 500 && answer.status !== 503) throw new Error(`status ${answer.status}`);
      return answer.status;
    };
    const asked = fc.record({
      method: fc.constantFrom(...METHODS),
      path: fc.oneof(fc.constantFrom(...PATHS), fc.string({ maxLength: 30 }).map(encodeURIComponent)),
      query: fc.oneof(
        fc.constant(''),
        fc.string({ unit: 'binary', maxLength: 20 }).map((text) => `?${encodeURIComponent(text.toWellFormed())}`),
      ),
      body: fc.oneof(
        fc.json(),
        fc.string({ unit: 'binary', maxLength: 200 }).map((text) => text.toWellFormed()),
        mutated({ id: 'c1', key: 'abcdefgh', place: null, name: 'x', links: [{ role: 'viewer', name: 'v' }] }).map(
          (value) => JSON.stringify(value) ?? '',
        ),
      ),
    });
    const http = await fuzz('the HTTP interface', asked, async ({ method, path, query, body }) => {
      // A sheet that is removed is not fuzzed any more.
      if (method === 'DELETE' && (path === '' || path.startsWith('/'))) return false;
      const at = path.includes('?') ? `/api/sheets/${sheet}/${path}` : `/api/sheets/${sheet}/${path}${query}`;
      return (await send(at, { method, headers, ...(method === 'GET' || method === 'HEAD' ? {} : { body }) })) < 300;
    });
    let sent = 0;
    const live = await fuzz(
      'changes of the live protocol, one after another',
      fc.array(anyOperation, { minLength: 1, maxLength: 5 }),
      async (operations) => {
        const status = await send(`/api/sheets/${sheet}/changes`, {
          method: 'POST',
          headers,
          body: JSON.stringify({ id: `fuzz-${++sent}`, operations }),
        });
        return status === 200;
      },
    );
    const still = await fetch(`${instance.address}/api/ready`);
    const replayed = await fetch(`${instance.address}/api/sheets/${sheet}/packed`, { headers });
    if (!still.ok || !replayed.ok)
      return [http, { ...live, failure: `the server is not well: ready ${still.status}, sheet ${replayed.status}` }];
    return [http, live];
  } finally {
    await instance.end();
  }
}
