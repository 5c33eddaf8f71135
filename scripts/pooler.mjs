import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { freePort, handOver, serverUser } from './postgres.mjs';
import { atPort } from './replica.mjs';
import { Trouble } from './run.mjs';

export const PGBOUNCER = '/usr/sbin/pgbouncer';

/** Debian's PgBouncer with the configuration of docs/deploying, in front of a database. */
export class Pooler {
  /** `place` is a folder for its files, which its user can enter; `url` the address of the database, with password. */
  constructor(root, { place, url }) {
    this.example = readFileSync(join(root, 'docs/deploying/pgbouncer.ini'), 'utf8');
    this.place = place;
    this.url = url;
  }

  /** Starts it. Returns the address of the database by it. */
  async start() {
    this.port = await freePort();
    mkdirSync(this.place, { recursive: true });
    const { username, password, port } = new URL(this.url);
    const users = join(this.place, 'users.txt');
    writeFileSync(users, `"${username}" "${decodeURIComponent(password)}"\n`, { mode: 0o600 });
    this.#write(port);
    handOver(this.place, users, this.#file);
    this.process = spawn(PGBOUNCER, ['-q', this.#file], { ...serverUser(), cwd: '/', stdio: 'ignore' });
    const address = atPort(this.url, this.port);
    for (let tries = 0; tries < 50; tries++) {
      if (await answers(address)) return address;
      await pause(100);
    }
    throw new Trouble(`PgBouncer does not answer at port ${this.port}.`);
  }

  /** Leads to the same database at another port from now on. */
  point(port) {
    this.#write(port);
    this.process.kill('SIGHUP');
  }

  get #file() {
    return join(this.place, 'pgbouncer.ini');
  }

  #write(port) {
    const name = new URL(this.url).pathname.slice(1);
    writeFileSync(
      this.#file,
      this.example
        .replace(/^auxesis = (.*)port=5432 dbname=auxesis/m, `${name} = $1port=${port} dbname=${name}`)
        .replace('listen_port = 6432', `listen_port = ${this.port}\nlogfile = ${join(this.place, 'pgbouncer.log')}`)
        .replace('/etc/pgbouncer/userlist.txt', join(this.place, 'users.txt')),
    );
  }

  stop() {
    this.process?.kill('SIGKILL');
  }
}

async function answers(address) {
  // Packages may not be installed yet when this module is read.
  const { default: postgres } = await import('postgres');
  const sql = postgres(address, { max: 1, connect_timeout: 2, onnotice: () => {} });
  try {
    return await sql`select 1`.simple().catch(() => null);
  } finally {
    await sql.end({ timeout: 1 });
  }
}
