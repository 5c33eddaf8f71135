import { execFileSync, spawnSync, type ChildProcess } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { NGINX, startProxy } from '../../scripts/proxy.mjs';
import { SETTING_NAMES } from '../../src/server/settings';
import { isMissing } from '../support/is-missing';

const folder = mkdtempSync(join(tmpdir(), 'auxesis-nginx-'));
afterAll(() => rmSync(folder, { recursive: true }));
const page = readFileSync('docs/deploying.md', 'utf8');

test('every setting is explained, and nothing is that is none', () => {
  const explained = [...page.matchAll(/^\| `([A-Z_]+)`/gm)].map(([, name]) => name!);
  expect(explained.sort()).toEqual([...SETTING_NAMES].sort());
});

/** Something in place of the app that says which one it is. */
async function standIn(name: string): Promise<Server> {
  const server = createServer((_, answer) => answer.end(name));
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return server;
}

const portOf = (server: Server): number => (server.address() as AddressInfo).port;
const closed = (server: Server): Promise<unknown> => {
  server.closeAllConnections();
  return new Promise((resolve) => server.close(resolve));
};

test.skipIf(isMissing(NGINX))(
  'the proxy sends what is about a sheet to one process, and to another where that is gone',
  async () => {
    const [first, second, free] = [await standIn('first'), await standIn('second'), await standIn('')];
    const port = portOf(free);
    await closed(free);
    const nginx = startProxy('.', {
      place: join(folder, 'proxy'),
      port,
      ports: [first, second].map(portOf),
    }) as ChildProcess;
    const ask = async (path: string, method = 'GET'): Promise<string> =>
      (await fetch(`http://127.0.0.1:${port}${path}`, { method })).text();
    try {
      await expect.poll(() => ask('/').catch(() => ''), { timeout: 10_000 }).not.toBe('');
      const homes = new Map<string, string>();
      for (let at = 0; at < 30; at++) {
        const answers = [
          await ask(`/sheets/s${at}`),
          await ask(`/sheets/s${at}/history?x=1`),
          await ask(`/api/sheets/s${at}/changes`, 'POST'),
          await ask(`/api/v1/sheets/s${at}/records`),
        ];
        expect(new Set(answers).size).toBe(1);
        homes.set(`s${at}`, answers[0]!);
      }
      expect(new Set(homes.values())).toEqual(new Set(['first', 'second']));
      await closed(first);
      for (const sheet of homes.keys()) expect(await ask(`/api/sheets/${sheet}/changes`, 'POST')).toBe('second');
    } finally {
      nginx.kill('SIGKILL');
      await closed(second);
    }
  },
);

// By Debian's nginx itself.
test.skipIf(isMissing(NGINX, '/usr/bin/openssl'))('the example for the proxy is one that nginx takes', () => {
  const [pem, key] = [join(folder, 'cert.pem'), join(folder, 'cert.key')];
  execFileSync(
    'openssl',
    ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-subj', '/CN=sheets.example.org', '-keyout', key, '-out', pem],
    {
      stdio: 'ignore',
    },
  );
  const site = readFileSync('docs/deploying/nginx.conf', 'utf8')
    .replace(/ssl_certificate .*;/, `ssl_certificate ${pem};`)
    .replace(/ssl_certificate_key .*;/, `ssl_certificate_key ${key};`);
  writeFileSync(join(folder, 'site.conf'), site);
  mkdirSync(join(folder, 'logs'));
  const whole = `pid ${folder}/nginx.pid; error_log ${folder}/error.log; events {} http { access_log off; include ${folder}/site.conf; }`;
  writeFileSync(join(folder, 'nginx.conf'), whole);
  const { status, stderr } = spawnSync(NGINX, ['-t', '-p', folder, '-c', join(folder, 'nginx.conf')], {
    encoding: 'utf8',
  });
  expect({ status, stderr }).toMatchObject({
    status: 0,
    stderr: expect.stringContaining('test is successful') as string,
  });
});
