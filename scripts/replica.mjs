import { mkdirSync } from 'node:fs';
import { Cluster, freePort, serverFolder } from './postgres.mjs';

/** A streaming replica of a cluster on this machine. It can be made the primary in its place. */
export class Replica extends Cluster {
  /** Copies a running cluster, and follows it from then on under a name. Returns its port. */
  async copy(primary, name) {
    this.bin = serverFolder();
    mkdirSync(this.folder, { recursive: true });
    this.handOver(this.folder);
    this.name = name;
    this.adminUrl = primary.adminUrl;
    const from = `${primary.adminUrl}?application_name=${name}`;
    this.as(['pg_basebackup', '-d', from, '-D', this.data, '-R', '-X', 'stream', '-c', 'fast']);
    const port = await freePort();
    this.launch(port);
    this.adminUrl = atPort(primary.adminUrl, port);
    return port;
  }
}

/** The address of the same database at another port. */
export const atPort = (url, port) => Object.assign(new URL(url), { port: String(port) }).href;
