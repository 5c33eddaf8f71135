import { appendFileSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import postgres from 'postgres';
import { Cluster } from '../postgres.mjs';
import { atPort, Replica } from '../replica.mjs';
import { prepareDatabase } from '../serve-app.mjs';

/** How often the primary is asked whether it lives, and how often in a row it may fail. */
const WATCH_MS = 250;
const FAILURES = 3;

/** A primary and two replicas on loopback, with what watches over them, as a program for failover does. */
export class Databases {
  isWatching = true;

  constructor(root, name) {
    this.root = root;
    this.name = name;
    this.primary = new Cluster(root, `${name}-a`);
    this.replicas = ['b', 'c'].map((each) => new Replica(root, `${name}-${each}`));
    this.all = [this.primary, ...this.replicas];
  }

  async start() {
    this.appUrl = await this.primary.start('auxesis');
    prepareDatabase(this.root, this.appUrl);
    this.ports = [new URL(this.appUrl).port];
    for (const [at, replica] of this.replicas.entries())
      this.ports.push(String(await replica.copy(this.primary, ['b', 'c'][at])));
    // From now on a change waits for one of the replicas.
    const settings = readFileSync(join(this.root, 'docs/deploying/replication.conf'), 'utf8');
    for (const each of this.all) {
      appendFileSync(join(each.data, 'postgresql.conf'), settings);
      await asked(each.adminUrl, (sql) => sql`select pg_reload_conf()`);
    }
  }

  /** The address for what needs the primary itself, whichever that is. */
  get directUrl() {
    const hosts = this.ports.map((port) => `127.0.0.1:${port}`).join(',');
    return `${this.appUrl.replace(/127\.0\.0\.1:\d+/, hosts)}?target_session_attrs=primary`;
  }

  get replicaUrls() {
    return this.ports.slice(1).map((port) => atPort(this.appUrl, port));
  }

  get primaryPort() {
    return new URL(this.primary.adminUrl).port;
  }

  /** Ends the primary at once, as a power cut does. */
  killPrimary() {
    const [pid] = readFileSync(join(this.primary.data, 'postmaster.pid'), 'utf8').split('\n');
    process.kill(Number(pid), 'SIGKILL');
  }

  /** Promotes a replica once the primary does not answer any more; `promoted` is called with its port. */
  async watch(promoted) {
    for (let failures = 0; this.isWatching; await pause(WATCH_MS)) {
      const answers = asked(this.primary.adminUrl, (sql) => sql`select 1`).then(
        () => true,
        () => false,
      );
      failures = (await Promise.race([answers, pause(1000, false)])) ? 0 : failures + 1;
      if (failures < FAILURES || this.replicas.length < 2) continue;
      await this.#failOver();
      promoted(this.primaryPort);
    }
  }

  /** Of the replicas the one that has most becomes the primary: it has all that was acknowledged. */
  async #failOver() {
    const received = (each) =>
      asked(each.adminUrl, (sql) => sql`select pg_wal_lsn_diff(pg_last_wal_receive_lsn(), '0/0')::bigint as bytes`);
    const places = await Promise.all(this.replicas.map(async (each) => BigInt((await received(each))[0].bytes)));
    const best = places[0] >= places[1] ? 0 : 1;
    const [fallen, next, other] = [this.primary, this.replicas[best], this.replicas[1 - best]];
    await asked(next.adminUrl, (sql) => sql`select pg_promote(true, 30)`);
    const [port, then] = [new URL(fallen.adminUrl).port, new URL(next.adminUrl).port];
    await asked(other.adminUrl, async (sql) => {
      const [{ primary_conninfo: from }] = await sql`show primary_conninfo`;
      const to = from.replace(`port=${port}`, `port=${then}`);
      const [{ line }] = await sql`select format('alter system set primary_conninfo = %L', ${to}::text) as line`;
      await sql.unsafe(line);
      await sql`select pg_reload_conf()`;
    });
    this.primary = next;
    this.replicas = [other];
  }

  end() {
    this.isWatching = false;
    for (const each of this.all) each.remove();
  }
}

/** Asks a database over a connection of its own. */
export async function asked(url, ask) {
  const sql = postgres(url, { max: 1, connect_timeout: 2, onnotice: () => {} });
  try {
    return await ask(sql);
  } finally {
    await sql.end({ timeout: 1 });
  }
}
