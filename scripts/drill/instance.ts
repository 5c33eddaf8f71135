import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import postgres from 'postgres';
import { Cluster, freePort } from '../postgres.mjs';
import { prepareDatabase } from '../serve-app.mjs';
import type { Acknowledged } from './page';

/** A throw-away instance: a cluster of its own, and processes of the app that can be ended at any moment. */
export class Instance {
  private readonly apps = new Map<number, ChildProcess>();
  private port = 0;
  private isOver = false;
  /** How often a process ended that nobody ended. */
  endedByThemselves = 0;
  /** Where the app is while it is not one of these processes. */
  private elsewhere: string | null = null;

  readonly cluster: Cluster;
  readonly database: string;
  readonly admin: string;

  private constructor(
    private readonly root: string,
    { cluster, database, admin }: { readonly cluster: Cluster; readonly database: string; readonly admin: string },
  ) {
    this.cluster = cluster;
    this.database = database;
    this.admin = admin;
  }

  /** `place` is where the cluster lies: see Cluster. */
  static async make({ root, place = root, name }: { root: string; place?: string; name: string }): Promise<Instance> {
    const cluster = new Cluster(place, name) as Cluster & { adminUrl: string };
    return new Instance(root, { cluster, database: await cluster.start('auxesis'), admin: cluster.adminUrl });
  }

  get address(): string {
    return this.elsewhere ?? `http://127.0.0.1:${this.port}`;
  }

  /** Brings the database to the schema of these sources. */
  prepare(): void {
    prepareDatabase(this.root, this.database);
  }

  /** Starts a process of the app: at the usual port, or at one more. */
  async start({
    port = this.port,
    settings = {},
    preload,
  }: { port?: number; settings?: Record<string, string>; preload?: string } = {}): Promise<number> {
    const at = port || (await freePort());
    this.port ||= at;
    const env = {
      ...process.env,
      DATABASE_URL: this.database,
      PORT: String(at),
      NODE_ENV: 'production',
      AUXESIS_LOG_LEVEL: process.env.AUXESIS_LOG_LEVEL ?? 'fatal',
      ...settings,
    };
    const launch = (): void => {
      const app = spawn(process.execPath, [...(preload ? ['--import', preload] : []), 'dist/server.mjs'], {
        env: env as NodeJS.ProcessEnv,
        stdio: ['ignore', 'ignore', 'inherit'],
      });
      this.apps.set(at, app);
      // A process that ends by itself is started again, as a service would be.
      app.once('exit', (code) => {
        if (code === null || code === 0 || this.isOver) return;
        this.endedByThemselves++;
        setTimeout(() => !this.isOver && launch(), 1000);
      });
    };
    launch();
    for (let tries = 0; tries < 300; tries++) {
      const answer = await fetch(`http://127.0.0.1:${at}/api/ready`).catch(() => null);
      if (answer?.ok) return at;
      await pause(100);
    }
    throw new Error('the app did not become ready');
  }

  /** Another process is asked from now on: one of these by its port, or another by its address. */
  use(which: number | string): void {
    if (typeof which === 'number') this.port = which;
    this.elsewhere = typeof which === 'string' ? which : null;
  }

  app(port = this.port): ChildProcess {
    return this.apps.get(port)!;
  }

  /** Ends a process of the app at once, as a power cut does. */
  async kill(port = this.port): Promise<void> {
    const app = this.app(port);
    if (app.exitCode !== null || app.signalCode !== null) return;
    const over = new Promise((resolve) => app.once('exit', resolve));
    app.kill('SIGKILL');
    await over;
  }

  /** Ends the database's main process at once; its others follow. */
  async killDatabase(): Promise<void> {
    const [pid] = readFileSync(
      join((this.cluster as unknown as { data: string }).data, 'postmaster.pid'),
      'utf8',
    ).split('\n');
    process.kill(Number(pid), 'SIGKILL');
    for (let tries = 0; tries < 100 && alive(Number(pid)); tries++) await pause(50);
  }

  /** Starts the database again, at the port where it was. */
  async startDatabase(): Promise<void> {
    const port = Number(new URL(this.database).port);
    // Others of its processes may hold its memory for a moment longer.
    for (let tries = 0; ; tries++)
      try {
        return (this.cluster as unknown as { launch(port: number): void }).launch(port);
      } catch (error) {
        if (tries === 20) throw error;
        await pause(500);
      }
  }

  async signIn(): Promise<string> {
    const answer = await fetch(`${this.address}/api/demo`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: '{}',
    });
    return answer.headers
      .getSetCookie()
      .map((line) => line.split(';', 1)[0]!)
      .join('; ');
  }

  async makeSheet(cookie: string): Promise<string> {
    const headers = { 'content-type': 'application/json', cookie };
    const answer = await fetch(`${this.address}/api/sheets`, {
      method: 'POST',
      headers,
      body: JSON.stringify({ name: `Drill ${Date.now()}` }),
    });
    return ((await answer.json()) as { id: string }).id;
  }

  /** The log's entries for the acknowledged changes. */
  async check(sheet: string, acknowledged: Acknowledged): Promise<{ lost: number; doubled: number; gaps: number }> {
    const sql = postgres(this.database, { max: 1, onnotice: () => {} });
    try {
      const log = await sql<
        { change_id: string; sequence: string }[]
      >`select change_id, sequence from sheet_change where sheet_id = ${sheet} order by sequence`;
      const places = new Map<string, number[]>();
      for (const { change_id, sequence } of log)
        places.set(change_id, [...(places.get(change_id) ?? []), Number(sequence)]);
      let lost = 0;
      for (const [change, sequence] of acknowledged) if (!places.get(change)?.includes(sequence)) lost++;
      const doubled = [...places.values()].filter((at) => at.length > 1).length;
      return { lost, doubled, gaps: log.filter(({ sequence }, at) => Number(sequence) !== at + 1).length };
    } finally {
      await sql.end();
    }
  }

  async end(): Promise<void> {
    this.isOver = true;
    for (const port of this.apps.keys()) await this.kill(port);
    this.cluster.remove();
  }
}

function alive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
