// npm run restore FILE: replaces everything in the database by a backup, or changes nothing where that fails.
import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { runTool, startTool, withDatabase } from './postgres-tools.mjs';
import { main, Trouble } from './run.mjs';

await main(async () => {
  const [file] = process.argv.slice(2);
  if (!file) throw new Trouble('Say from which file: npm run restore -- FILE');
  if (!existsSync(file)) throw new Trouble(`There is no file ${file}.`);
  await withDatabase(restore, { alone: true });
  console.log(
    `Restored from ${file}. Start the app again: it brings the schema up to date where the backup is of an earlier version.`,
  );

  /** In one transaction: the old contents go, those of the backup come. */
  async function restore(url) {
    const reading = startTool('pg_restore', ['--no-owner', '--no-privileges', '--file=-', file], { url });
    const read = once(reading, 'close');
    const input = async (stdin) => {
      stdin.on('error', () => {});
      stdin.write('drop schema public cascade;\ncreate schema public;\n');
      for await (const part of reading.stdout)
        if (!stdin.write(part)) await Promise.race([once(stdin, 'drain'), once(stdin, 'close')]);
      const [status] = await read;
      // Without its end the transaction is rolled back.
      stdin.end(status === 0 ? '' : "do $$ begin raise 'the backup is cut off or damaged'; end $$;\n");
    };
    await runTool('psql', ['--quiet', '--no-psqlrc', '--single-transaction', '--set=ON_ERROR_STOP=1', '--file=-'], {
      url,
      input,
    });
  }
});
