import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { SETTING_NAMES } from '../../src/server/settings';
import { isMissing } from '../support/is-missing';

const folder = mkdtempSync(join(tmpdir(), 'auxesis-nginx-'));
afterAll(() => rmSync(folder, { recursive: true }));
const page = readFileSync('docs/deploying.md', 'utf8');

test('every setting is explained, and nothing is that is none', () => {
  const explained = [...page.matchAll(/^\| `([A-Z_]+)`/gm)].map(([, name]) => name!);
  expect(explained.sort()).toEqual([...SETTING_NAMES].sort());
});

// By Debian's nginx itself.
test.skipIf(isMissing('/usr/sbin/nginx', '/usr/bin/openssl'))(
  'the example for the proxy is one that nginx takes',
  () => {
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
    const { status, stderr } = spawnSync('/usr/sbin/nginx', ['-t', '-p', folder, '-c', join(folder, 'nginx.conf')], {
      encoding: 'utf8',
    });
    expect({ status, stderr }).toMatchObject({
      status: 0,
      stderr: expect.stringContaining('test is successful') as string,
    });
  },
);
