// A sheet of 1,000,000 cells as a file of each format, out and in, each in a process of its own with its time and the
// most memory it takes, beside the plain writer or parser of the library alone.
import { spawnSync } from 'node:child_process';
import { mkdtempSync, openAsBlob, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { unzipSync, zipSync } from 'fflate';
import Papa from 'papaparse';
import { SaxesParser } from 'saxes';
import { EXPORT_FORMATS } from '../../src/core/exchange/export-formats';
import { exportSource } from '../../src/core/exchange/export-source';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { openFile } from '../../src/engine/files/open-file';
import { packLines } from '../../src/engine/files/pack-lines';
import { figure, ms } from './figures.mjs';
import { sheetOf } from './one-field';

const ROWS = 100_000;
const FIELDS = 10;
const FORMATS = ['csv', 'json', 'ooxml', 'odf'] as const;
type Format = (typeof FORMATS)[number];

const inputAt = (row: number, field: number): string =>
  row === 0
    ? `Field ${field + 1}`
    : field === 0
      ? `Station ${row % 11}`
      : field === 1
        ? `2026-03-${String((row % 28) + 1).padStart(2, '0')}`
        : String(((row * 7 + field * 13) % 1000) / 10);

/** The parts of a packed file, gone through by the parser alone. */
function parsed(path: string): number {
  let elements = 0;
  for (const [name, bytes] of Object.entries(unzipSync(readFileSync(path)))) {
    if (name === 'mimetype') continue;
    const parser = new SaxesParser({ xmlns: true });
    parser.on('opentag', () => elements++);
    const decoder = new TextDecoder();
    for (let at = 0; at < bytes.length; at += 262_144)
      parser.write(decoder.decode(bytes.subarray(at, at + 262_144), { stream: true }));
    parser.close();
  }
  return elements;
}

const read: Readonly<Record<Format, (path: string) => unknown>> = {
  csv: (path) => Papa.parse(readFileSync(path, 'utf8'), { delimiter: ',' }).data.length,
  json: (path) => (JSON.parse(readFileSync(path, 'utf8')) as { records: unknown[] }).records.length,
  ooxml: parsed,
  odf: parsed,
};

const texts = (): string[][] =>
  Array.from({ length: ROWS + 1 }, (_, row) => Array.from({ length: FIELDS }, (__, field) => inputAt(row, field)));

const written: Readonly<Record<Format, (path: string) => () => unknown>> = {
  csv: () => {
    const rows = texts();
    return () => Papa.unparse(rows).length;
  },
  json: (path) => {
    const whole = JSON.parse(readFileSync(path, 'utf8')) as unknown;
    return () => JSON.stringify(whole).length;
  },
  ooxml: packed,
  odf: packed,
};

function packed(path: string): () => number {
  const parts = unzipSync(readFileSync(path));
  return () => zipSync(parts).length;
}

/** Files made by the format's writer, or read as an import reads them, to the lines that are sent. */
async function work(what: string, format: Format, path: string): Promise<() => unknown> {
  switch (what) {
    case 'out': {
      const sheet = sheetOf(
        Array.from({ length: FIELDS }, (_, field) => `f${field}`),
        ROWS + 1,
        (row) => Array.from({ length: FIELDS }, (_, field) => inputAt(row, field)),
      );
      const source = exportSource(new Evaluation(sheet, {}), { name: 'Million', looks: {} });
      return () => {
        const parts: (string | Uint8Array<ArrayBuffer>)[] = [];
        const texts: string[] = [];
        for (const part of EXPORT_FORMATS[format].write(source, {}).parts) {
          if (typeof part !== 'string') parts.push(part);
          else if (texts.push(part) === 500) parts.push(Buffer.from(texts.splice(0).join('')));
        }
        writeFileSync(path, Buffer.concat([...parts, texts.join('')].map((part) => Buffer.from(part))));
      };
    }
    case 'in': {
      const file = new File([await openAsBlob(path)], `million.${EXPORT_FORMATS[format].ending}`);
      return async () => packLines((await openFile(file, () => {})).lines('Million', () => {}));
    }
    case 'read':
      return () => read[format](path);
    default:
      return written[format](path);
  }
}

const [what, format, path] = process.argv.slice(2);
if (what !== undefined && path !== undefined) {
  const task = await work(what, format as Format, path);
  globalThis.gc?.();
  const before = process.memoryUsage().rss;
  const began = performance.now();
  await task();
  const took = performance.now() - began;
  console.log(JSON.stringify({ took, memory: process.resourceUsage().maxRSS * 1024 - before }));
} else {
  const folder = mkdtempSync(join(tmpdir(), 'auxesis-bench-'));
  const own = fileURLToPath(import.meta.url);
  const alone = (act: string, of: Format) => {
    const file = join(folder, `million.${EXPORT_FORMATS[of].ending}`);
    const ended = spawnSync(process.execPath, ['--expose-gc', '--import', 'tsx', own, act, of, file], {
      encoding: 'utf8',
    });
    if (ended.status !== 0) throw new Error(`${act} ${of}: ${ended.stderr}`);
    return JSON.parse(ended.stdout) as { took: number; memory: number };
  };
  for (const each of FORMATS)
    for (const [act, plain, says] of [
      ['out', 'write', 'written'],
      ['in', 'read', 'read and packed, to be sent'],
    ] as const) {
      const ours = alone(act, each);
      const theirs = alone(plain, each);
      const mb = ({ memory }: typeof ours) => `${Math.round(memory / 1e6)} MB`;
      figure(
        `1,000,000 cells as ${each}: ${says}`,
        ms(ours.took),
        `its library alone ${ms(theirs.took)}, ${mb(theirs)}`,
        `${(ours.took / theirs.took).toFixed(1)}x, ${mb(ours)} (aim 3x, 300 MB)`,
      );
    }
  rmSync(folder, { recursive: true });
}
