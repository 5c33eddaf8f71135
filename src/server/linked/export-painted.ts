import { writeCsv } from '../../core/exchange/csv/write-csv';
import type { Rule } from '../../core/rules/shape/rule';
import { connectLinked } from '../../linked/linked-connection';
import { readInBatches } from '../../linked/run-statement';
import { refusalText } from '../../texts/refusal-text';
import { processWide } from '../process-wide';
import { Refusal } from '../refusal';
import { ofTable } from './judge-rule';
import type { LinkedSheet } from './linked-sheet';

/** Exports that are made at once, and how long the database may take for one. */
const AT_ONCE = 2;
const STATEMENT_MS = 600_000;
const ROWS_AT_ONCE = 1000;

const exports = () => processWide('painted-exports', () => ({ running: 0 }));

/**
 * All records of a linked table that any of its rules paints, with the names of those rules, as a table (RFC 4180) in
 * pieces: as many at a time as are taken. Throws a Refusal where others are being made.
 */
export function exportPainted(sheet: LinkedSheet, rules: readonly Rule[]): AsyncGenerator<Uint8Array> {
  if (exports().running >= AT_ONCE) throw new Refusal('too-busy', refusalText('databaseIsBusy'));
  return pieces(sheet, rules);
}

async function* pieces(sheet: LinkedSheet, rules: readonly Rule[]): AsyncGenerator<Uint8Array> {
  exports().running++;
  const connection = connectLinked(sheet.url, { max: 1, statementMs: STATEMENT_MS });
  try {
    const { linked } = ofTable(sheet, rules);
    const { columns } = sheet.table;
    const names = linked.rules.map(({ rule }) => rule.name);
    const lines = (rows: string[][]): Uint8Array => Buffer.from(writeCsv({ rows, width: columns.length + 1 }));
    yield lines([[...columns.map(({ name }) => name), PAINTED_BY]]);
    for await (const batch of readInBatches(connection, linked.painted(), ROWS_AT_ONCE)) {
      const rows = batch.map((row) => [
        ...columns.map((_, at) => String(row[`c${at + 1}`] ?? '')),
        names.filter((_, at) => row[`r${at + 1}`] === true).join('; '),
      ]);
      yield lines(rows);
    }
  } finally {
    exports().running--;
    await connection.end({ timeout: 5 });
  }
}

const PAINTED_BY = 'Painted by';
