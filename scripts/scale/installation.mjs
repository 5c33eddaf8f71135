import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { Pooler } from '../pooler.mjs';
import { freePort } from '../postgres.mjs';
import { startProxy } from '../proxy.mjs';
import { serveApp } from '../serve-app.mjs';
import { asked, Databases } from './databases.mjs';

const PROCESSES = 3;
/** How long a process is away that was killed. */
const AWAY_MS = 5000;

/** An installation of everything, on loopback. */
export class Installation {
  constructor(root, name) {
    this.root = root;
    this.databases = new Databases(root, name);
    this.pooler = null;
    this.apps = new Map();
    this.place = mkdtempSync(join(tmpdir(), 'auxesis-scale-'));
  }

  async start() {
    await this.databases.start();
    this.pooler = new Pooler(this.root, {
      place: join(this.databases.primary.folder, 'pooler'),
      url: this.databases.appUrl,
    });
    this.database = await this.pooler.start();
    this.ports = await Promise.all(Array.from({ length: PROCESSES }, () => freePort()));
    this.port = await freePort();
    this.address = `http://127.0.0.1:${this.port}`;
    await Promise.all(this.ports.map((port) => this.startApp(port)));
    this.proxy = startProxy(this.root, { place: this.place, port: this.port, ports: this.ports });
    for (let tries = 0; tries < 50 && !(await fetch(`${this.address}/api/ready`).catch(() => null)); tries++)
      await pause(100);
    this.watching = this.databases.watch((port) => this.pooler.point(port));
  }

  async startApp(port) {
    const app = serveApp(this.root, {
      database: this.database,
      port,
      settings: {
        DATABASE_DIRECT_URL: this.databases.directUrl,
        DATABASE_READ_URLS: this.databases.replicaUrls.join(' '),
        AUXESIS_PUBLIC_URL: this.address,
        AUXESIS_TRUST_PROXY: 'on',
        AUXESIS_LOG_LEVEL: process.env.AUXESIS_LOG_LEVEL ?? 'fatal',
      },
      stderr: 'inherit',
    });
    this.apps.set(port, app);
    await app.ready;
  }

  /** Kills a process of the app; a moment later it is started again, as a service does. */
  async killApp(port) {
    process.kill(this.apps.get(port).pid, 'SIGKILL');
    await this.apps.get(port).over;
    this.starting = pause(AWAY_MS).then(() => this.startApp(port));
  }

  /** The port of the process that keeps the findings of a sheet. */
  async keeperOf(sheet) {
    const [{ owner }] = await asked(
      this.databases.primary.adminUrl,
      (sql) => sql`select owner from sheet_lease where sheet_id = ${sheet}`,
    );
    const pid = Number(owner.split(' ')[1]);
    return [...this.apps].find(([, app]) => app.pid === pid)?.[0];
  }

  async end() {
    await this.starting?.catch(() => {});
    for (const app of this.apps.values()) await app.stop();
    this.proxy?.kill('SIGKILL');
    this.pooler?.stop();
    this.databases.end();
    await this.watching;
    rmSync(this.place, { recursive: true, force: true });
  }
}
