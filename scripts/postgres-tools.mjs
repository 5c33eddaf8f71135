import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Cluster, serverFolder } from './postgres.mjs';
import { Trouble } from './run.mjs';

const root = dirname(dirname(fileURLToPath(import.meta.url)));

/**
 * Does something with the database that DATABASE_URL names, else with the private one of this clone, which is started
 * for it where it does not run. `work` gets the address of the database.
 */
export async function withDatabase(work, { alone = false } = {}) {
  if (process.env.DATABASE_URL) return work(process.env.DATABASE_URL);
  const cluster = new Cluster(root, 'postgres');
  if (!cluster.exists())
    throw new Trouble('There is no database yet. Start the app once with "npm start", or set DATABASE_URL.');
  if (alone) await cluster.take();
  const ran = cluster.runningPort() !== undefined;
  const url = await cluster.start('auxesis');
  try {
    return await work(url);
  } finally {
    if (!ran) cluster.stop();
  }
}

/**
 * Settings by which PostgreSQL's programs reach a database: in their environment, as anybody may read the arguments of
 * a process.
 */
function environmentFor(url) {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    ...process.env,
    PGHOST: hostname.replace(/^\[|\]$/g, ''),
    PGPORT: port || '5432',
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: decodeURIComponent(pathname.slice(1)),
  };
}

/**
 * Runs one of PostgreSQL's programs to its end. With `input`, writes that to it, as a stream or as text first. Throws
 * Trouble with what it said.
 */
export function runTool(name, args, { url, input }) {
  const path = join(serverFolder(), name);
  if (!existsSync(path)) throw new Trouble(`${name} is missing. As root, run: apt-get install postgresql-client`);
  const child = spawn(path, args, { env: environmentFor(url), stdio: [input ? 'pipe' : 'ignore', 'ignore', 'pipe'] });
  let said = '';
  child.stderr.on('data', (text) => (said += text));
  input?.(child.stdin);
  return new Promise((resolve, reject) => {
    child.on('error', (error) => reject(new Trouble(`${name} cannot be run: ${error.message}`)));
    child.on('close', (status) => (status === 0 ? resolve() : reject(new Trouble(`${name} failed:\n${said.trim()}`))));
  });
}

/** Starts one of PostgreSQL's programs whose output is read by another. */
export function startTool(name, args, { url }) {
  return spawn(join(serverFolder(), name), args, { env: environmentFor(url), stdio: ['ignore', 'pipe', 'inherit'] });
}
