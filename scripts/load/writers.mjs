import { Agent, request } from 'node:http';
import { setTimeout as pause } from 'node:timers/promises';

/** Sends JSON by a connection that is kept; the status and the answer, which has to come within `timeoutMs`. */
export const post = (agent, url, { headers = {}, body, timeoutMs = 0 }) =>
  new Promise((resolve, reject) => {
    const text = JSON.stringify(body);
    const asked = request(
      url,
      {
        agent,
        method: 'POST',
        headers: { ...headers, 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) },
      },
      (response) => {
        const parts = [];
        response.on('data', (part) => parts.push(part));
        response.on('end', () =>
          resolve({ status: response.statusCode, text: Buffer.concat(parts).toString(), response }),
        );
        response.on('error', reject);
      },
    );
    asked.setTimeout(timeoutMs, () => asked.destroy(new Error('no answer came')));
    asked.on('error', reject);
    asked.end(text);
  });

let changes = 0;

/** Rows in which a writer goes round. */
const OWN_ROWS = 10;

/** An entry of one cell, in a row of the writer's own. */
const entry = ({ rows, field }, { id, writer, round }) => ({
  id,
  operations: [
    {
      kind: 'set-cells',
      cells: [{ row: rows[(writer * OWN_ROWS + (round % OWN_ROWS)) % rows.length], field, input: String(changes) }],
    },
  ],
});

/**
 * Lets some writers send changes for some seconds, each the next one once it has the answer; with `rate`, so many a
 * second altogether. Returns how long each answer took (ms), how many each writer got, and how many were put off;
 * `sent` is called with the id of each change as it goes.
 */
export async function write(targets, { writers, seconds, rate, sent = () => {} }) {
  const answers = [];
  const each = Array.from({ length: writers }, () => 0);
  let putOff = 0;
  const began = performance.now();
  const end = began + seconds * 1000;
  let due = began;
  const turn = async () => {
    if (!rate) return;
    due = Math.max(due, performance.now() - 200) + 1000 / rate;
    await pause(Math.max(0, due - performance.now()));
  };
  const writer = async (at) => {
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    const { url, headers, sheet } = targets[at % targets.length];
    for (await turn(); performance.now() < end; await turn()) {
      const body = entry(sheet, { id: `load-${++changes}-${process.pid}`, writer: at, round: each[at] });
      const asked = performance.now();
      sent(body.id);
      for (;;) {
        const { status, text, response } = await post(agent, url, { headers, body });
        if (status === 200) break;
        if (status !== 503 && status !== 429) throw new Error(`A change was answered with ${status}: ${text}`);
        putOff++;
        await pause(1000 * Number(response.headers['retry-after'] ?? 1));
      }
      answers.push(performance.now() - asked);
      each[at]++;
    }
    agent.destroy();
  };
  await Promise.all(each.map((_, at) => writer(at)));
  return { answers, each, putOff, perSecond: (answers.length * 1000) / (performance.now() - began) };
}

/** The last change of a sheet: one that is made for it. */
export async function headOf({ url, headers, sheet }) {
  const agent = new Agent();
  const { text } = await post(agent, url, {
    headers,
    body: entry(sheet, { id: `head-${++changes}-${process.pid}`, writer: 0, round: 0 }),
  });
  return JSON.parse(text).sequence;
}
