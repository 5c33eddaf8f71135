import { spawn } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Debian's nginx. */
export const NGINX = '/usr/sbin/nginx';

const KINDS = ['client_body', 'proxy', 'fastcgi', 'uwsgi', 'scgi'];

/**
 * Starts nginx with the configuration of docs/deploying, without TLS, in front of processes of the app at some ports.
 * `place` is a folder for its files. Gives its process.
 */
export function startProxy(root, { place, port, ports }) {
  const each = ports.map((one) => `  server 127.0.0.1:${one} fail_timeout=2s;`);
  const site = readFileSync(join(root, 'docs/deploying/nginx.conf'), 'utf8')
    .replace(/server \{\n {2}listen 80;[^}]*\}/, '')
    .replace('listen 443 ssl http2;', `listen 127.0.0.1:${port};`)
    .replaceAll(/ {2}ssl_.*\n/g, '')
    .replace(/ {2}server 127\.0\.0\.1:4380.*/, each.join('\n'));
  mkdirSync(join(place, 'logs'), { recursive: true });
  writeFileSync(join(place, 'site.conf'), site);
  const paths = KINDS.map((kind) => `${kind}_temp_path ${place}/${kind};`);
  writeFileSync(
    join(place, 'nginx.conf'),
    `daemon off; master_process off; pid ${place}/pid; error_log ${place}/error.log; events { worker_connections 4096; }
    http { access_log off; ${paths.join(' ')} include ${place}/site.conf; }`,
  );
  return spawn(NGINX, ['-p', place, '-c', join(place, 'nginx.conf')], { stdio: 'ignore' });
}
