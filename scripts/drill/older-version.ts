import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { freePort } from '../postgres.mjs';

const MIGRATIONS = 'src/server/sql/migrations';

/** How long building and starting may take. */
const PATIENCE_MS = 400_000;

/** The app as it was before its newest migration, in a folder of its own. */
export class OlderVersion {
  private app: ChildProcess | null = null;

  private constructor(readonly folder: string) {}

  /** Takes it from the history of the repository; undefined where there is none. */
  static take(root: string): OlderVersion | undefined {
    const newest = readdirSync(join(root, MIGRATIONS)).toSorted().at(-1)!;
    const git = (...args: string[]) =>
      execFileSync('git', args, { cwd: root, encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] }).trim();
    let commit: string;
    try {
      commit = git('log', '-1', '--diff-filter=A', '--format=%P', '--', `${MIGRATIONS}/${newest}`);
    } catch {
      return undefined;
    }
    if (!commit) return undefined;
    const folder = mkdtempSync(join(tmpdir(), 'auxesis-older-'));
    execFileSync('sh', ['-c', 'git archive "$1" | tar -x -C "$2" && cp -a node_modules "$2"', 'sh', commit, folder], {
      cwd: root,
    });
    return new OlderVersion(folder);
  }

  /** Builds it and starts it, which brings the database to its schema. Gives its address. */
  async start(database: string): Promise<string> {
    const port = await freePort();
    const env = { ...process.env, DATABASE_URL: database, PORT: String(port) };
    this.app = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: this.folder,
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    const address = `http://127.0.0.1:${port}`;
    for (const end = Date.now() + PATIENCE_MS; Date.now() < end; await pause(300)) {
      if (this.app.exitCode !== null) throw new Error(`the older version ended by itself with ${this.app.exitCode}`);
      if ((await fetch(`${address}/api/health`).catch(() => null))?.ok) return address;
    }
    throw new Error('the older version did not start');
  }

  /** Asks it to stop, and waits until it has. */
  async stop(): Promise<void> {
    const { app } = this;
    this.app = null;
    if (!app || app.exitCode !== null) return;
    const over = new Promise((resolve) => app.once('exit', resolve));
    app.kill('SIGTERM');
    await over;
  }

  async remove(): Promise<void> {
    await this.stop();
    rmSync(this.folder, { recursive: true, force: true });
  }
}
