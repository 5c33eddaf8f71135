// npm run partition -- 8: lays sheets into so many parts, for installations with very many of them (docs/scale.md). The
// app is ended first. Changed again by another number.
import { connect } from '../src/server/database';
import { withDatabase } from './postgres-tools.mjs';
import { main, Trouble } from './run.mjs';

/** How long it may take to move everything. */
const MOST_MS = 24 * 3_600_000;

await main(async () => {
  const parts = Number(process.argv[2]);
  if (!Number.isInteger(parts)) throw new Trouble('Say into how many parts: npm run partition -- 8');
  await withDatabase(
    async (url) => {
      const sql = connect(url, { max: 1, statementMs: MOST_MS, idleMs: MOST_MS });
      const began = performance.now();
      try {
        await sql`select partition_sheets(${parts}::int)`;
        await sql`analyze`;
      } catch (error) {
        throw new Trouble(`The sheets were not laid into parts: ${error.message}.`);
      } finally {
        await sql.end();
      }
      console.log(`Sheets lie in ${parts} parts. That took ${((performance.now() - began) / 1000).toFixed(1)} s.`);
    },
    { alone: true },
  );
});
