// npm run backup FILE: everything in the database as it is at one moment, while the app goes on.
import { existsSync } from 'node:fs';
import { rename, rm, stat } from 'node:fs/promises';
import { runTool, withDatabase } from './postgres-tools.mjs';
import { main, Trouble } from './run.mjs';

await main(async () => {
  const [file] = process.argv.slice(2);
  if (!file) throw new Trouble('Say into which file: npm run backup -- FILE');
  if (existsSync(file)) throw new Trouble(`${file} is there already. Name another file, so that no backup is lost.`);
  // A backup that was cut off must not pass for one.
  const part = `${file}.part`;
  await withDatabase((url) =>
    runTool('pg_dump', ['--format=custom', '--no-owner', '--no-privileges', `--file=${part}`], { url }),
  ).catch(async (error) => {
    await rm(part, { force: true });
    throw error;
  });
  await rename(part, file);
  console.log(`Backup written: ${file}, ${(await stat(file)).size.toLocaleString('en')} bytes.`);
});
