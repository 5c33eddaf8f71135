// A file of separated values with 1,000,000 cells: looked through, packed, brought into the database and taken out
// again, with the memory that takes, beside reading it whole with the parser alone.
import { mkdtempSync, openAsBlob, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import Papa from 'papaparse';
import { exportSource } from '../../src/core/exchange/export-source';
import { csvOfSheet } from '../../src/core/exchange/csv/csv-of-sheet';
import { Evaluation } from '../../src/core/rules/evaluate/evaluation';
import { openFile } from '../../src/engine/files/open-file';
import { packLines } from '../../src/engine/files/pack-lines';
import { unpackSheet } from '../../src/protocol/packed/packed-sheet';
import { connect } from '../../src/server/database';
import { bringInSheet } from '../../src/server/sheets/bring-in-sheet';
import { readPacked } from '../../src/server/sheets/read-packed';
import { unzipPacked } from '../../src/server/sheets/unzip-packed';
import { figure, ms } from './figures.mjs';

const ROWS = 100_000;
const FIELDS = 10;
const folder = mkdtempSync(join(tmpdir(), 'auxesis-bench-'));
const path = join(folder, 'million.csv');
const line = (row: number) =>
  [
    `Station ${row % 11}`,
    `2026-03-${String((row % 28) + 1).padStart(2, '0')}`,
    ...Array.from({ length: FIELDS - 2 }, (_, at) => ((row * 7 + at * 13) % 1000) / 10),
  ].join(',');
writeFileSync(
  path,
  `${Array.from({ length: FIELDS }, (_, at) => `Field ${at + 1}`).join(',')}\n${Array.from({ length: ROWS }, (_, row) => line(row)).join('\n')}\n`,
);

/** Time and the most memory beyond what there was before, looked at every few milliseconds. */
async function measured<T>(
  work: () => Promise<T> | T,
): Promise<{ readonly took: string; readonly memory: string; readonly result: T }> {
  globalThis.gc?.();
  const before = process.memoryUsage().rss;
  let most = before;
  const look = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 5);
  const began = performance.now();
  const result = await work();
  const took = performance.now() - began;
  most = Math.max(most, process.memoryUsage().rss);
  clearInterval(look);
  return { took: ms(took), memory: `${Math.round((most - before) / 1e6)} MB more`, result };
}

const sql = connect(process.env.DATABASE_URL!);
const owner = 'bench';
await sql`insert into person (id, email, name) values (${owner}, 'bench@example.org', 'Bench') on conflict do nothing`;
const file = new File([await openAsBlob(path)], 'million.csv');
const whole = await measured(() => Papa.parse(readFileSync(path, 'utf8'), { delimiter: ',' }).data.length);
const looked = await measured(() => openFile(file, () => {}));
figure('1,000,000 cells looked through', looked.took, `parser alone, whole file ${whole.took}`, looked.memory);
const packed = await measured(() => packLines(looked.result.lines('Million', () => {})));
figure('and packed, to be sent', packed.took, `parser alone, whole file ${whole.took}`, packed.memory);
const brought = await measured(() =>
  bringInSheet(sql, Readable.fromWeb(packed.result.stream() as ReadableStream), owner),
);
const copied = await measured(
  () => sql`create temporary table bench_rows as select * from sheet_row where sheet_id = ${brought.result}`,
);
figure('and brought into the database', brought.took, `copied within the database ${copied.took}`, brought.memory);
const { sheet } = unpackSheet(unzipPacked(await readPacked(sql, brought.result)));
const source = exportSource(new Evaluation(sheet, {}), { name: 'Million', looks: {} });
const out = await measured(() => [...csvOfSheet(source, {}).parts].reduce((sum, part) => sum + part.length, 0));
const joined = await measured(
  () => sheet.order.map((slot) => sheet.columns.map((store) => store.inputAt(slot)).join(',')).join('\n').length,
);
figure('and taken out as separated values', out.took, `typed texts joined by hand ${joined.took}`, out.memory);
await sql`delete from sheet where id = ${brought.result}`;
await sql.end();
rmSync(folder, { recursive: true });
