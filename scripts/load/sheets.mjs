import { Agent } from 'node:http';
import { post } from './writers.mjs';

const ROWS = 200;
/** Streams that one person may have open at once, with some to spare. */
const READERS_EACH = 50;
const PASSWORD = 'marigold ferry at noon';

/** Asks a server for things as one person. */
class Caller {
  #agent = new Agent({ keepAlive: true });
  headers = {};

  constructor(address) {
    this.address = address;
  }

  async ask(path, body) {
    const { status, text, response } = await post(this.#agent, `${this.address}${path}`, {
      headers: this.headers,
      body,
    });
    if (status >= 300) throw new Error(`${path} was answered with ${status}: ${text}`);
    const cookies = (response.headers['set-cookie'] ?? []).map((cookie) => cookie.split(';')[0]);
    if (cookies.length) this.headers = { cookie: cookies.join('; ') };
    return JSON.parse(text || 'null');
  }

  close() {
    this.#agent.destroy();
  }
}

/** Makes sheets of the demo's owner to write into; each with the address of its changes and the headers to send. */
export async function makeSheets(address, count) {
  const owner = new Caller(address);
  await owner.ask('/api/demo', {});
  const targets = [];
  for (let at = 0; at < count; at++) {
    const { id } = await owner.ask('/api/sheets', { name: `Load ${at + 1}` });
    const rows = Array.from({ length: ROWS }, (_, row) => `load${row}`);
    await owner.ask(`/api/sheets/${id}/changes`, {
      id: 'rows',
      operations: [
        { kind: 'put-fields', fields: [{ id: 'load', key: 'b0', widthPx: 150, format: null, unit: null }] },
        {
          kind: 'insert-rows',
          rows: rows.map((row, place) => ({ id: row, key: `b${1000 + place}`, role: 'record', cells: {} })),
        },
      ],
    });
    targets.push({
      id,
      url: `${address}/api/sheets/${id}/changes`,
      headers: owner.headers,
      sheet: { rows, field: 'load' },
    });
  }
  owner.close();
  return targets;
}

/** The same for the bare server, whose sheets are names. */
export const bareTargets = (address, targets) =>
  targets.map(({ sheet }, at) => ({ url: `${address}/sheet-${at + 1}`, headers: {}, sheet }));

/** The headers of so many readers of a sheet: editors, each of whom has several streams. */
export async function makeReaders(address, { id, headers }, readers) {
  const owner = new Caller(address);
  owner.headers = headers;
  const all = [];
  while (all.length < readers) {
    const reader = new Caller(address);
    const email = `reader-${id}-${all.length}@wrenfold.example`.toLowerCase();
    await reader.ask('/api/sign-up', { email, name: 'Reader', password: PASSWORD });
    await reader.ask('/api/sign-in', { email, password: PASSWORD });
    const { path } = await owner.ask(`/api/sheets/${id}/sharing/invitations`, { email, role: 'editor' });
    await reader.ask(`/api${path}`, {});
    all.push(...Array.from({ length: Math.min(READERS_EACH, readers - all.length) }, () => reader.headers));
    reader.close();
  }
  owner.close();
  return all;
}
