import { spawn, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:net';
import { expect } from '@playwright/test';

/** A port of loopback that nobody listens on. */
export const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

const servers: ChildProcess[] = [];
/** Ends all that were started: to be called after each test. */
export const stopServers = () => servers.splice(0).forEach((server) => server.kill('SIGKILL'));

/** Another process of the app on the same database. */
export async function serve(port: number, settings: Readonly<Record<string, string>> = {}): Promise<ChildProcess> {
  const env = { ...process.env, PORT: String(port), NODE_ENV: 'production', ...settings } as NodeJS.ProcessEnv;
  const server = spawn(process.execPath, ['dist/server.mjs'], { stdio: 'ignore', env });
  servers.push(server);
  await expect
    .poll(
      () =>
        fetch(`http://127.0.0.1:${port}/api/health`)
          .then((answer) => answer.ok)
          .catch(() => false),
      { timeout: 20_000 },
    )
    .toBe(true);
  return server;
}
