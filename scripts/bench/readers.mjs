import { setTimeout as pause } from 'node:timers/promises';
import { EventSource } from 'eventsource';
import { figure, ms } from './figures.mjs';

const READERS = 50;
const CHANGES = 300;
const A_SECOND = 100;
const WARM = 200;

/** How soon changes by one person are seen by many others, who all follow the same sheet. */
export async function benchReaders(address) {
  const signedIn = await fetch(`${address}/api/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{}',
  });
  const headers = { 'content-type': 'application/json', cookie: signedIn.headers.getSetCookie()[0].split(';')[0] };
  const post = (path, body) => fetch(`${address}${path}`, { method: 'POST', headers, body: JSON.stringify(body) });
  const { id } = await (await post('/api/sheets', { name: 'Readers' })).json();
  const sent = new Map();
  const delays = [];
  const readers = Array.from(
    { length: READERS },
    () =>
      new EventSource(`${address}/api/sheets/${id}/changes?after=0`, {
        fetch: (url, init) => fetch(url, { ...init, headers: { ...init.headers, ...headers } }),
      }),
  );
  for (const reader of readers)
    reader.addEventListener('changes', ({ data }) => {
      const now = performance.now();
      for (const { change } of JSON.parse(data))
        if (!change.id.includes('warm')) delays.push(now - sent.get(change.id));
    });
  await Promise.all(readers.map((reader) => new Promise((resolve) => reader.addEventListener('open', resolve))));
  await pause(500);
  const answered = [];
  const asked = [];
  const began = performance.now();
  // The first ones warm the server up.
  for (let at = -WARM; at < CHANGES; at++) {
    const change = {
      id: at < 0 ? `warm-${-at}` : `bench-${at}`,
      operations: [
        { kind: 'put-fields', fields: [{ id: 'f1', key: 'a0', widthPx: 150 + (at % 90), format: null, unit: null }] },
      ],
    };
    sent.set(change.id, performance.now());
    asked.push(
      post(`/api/sheets/${id}/changes`, change).then(() => answered.push(performance.now() - sent.get(change.id))),
    );
    await pause(Math.max(0, began + ((at + WARM + 1) * 1000) / A_SECOND - performance.now()));
  }
  await Promise.all(asked);
  for (let waits = 0; delays.length < READERS * CHANGES && waits < 100; waits++) await pause(100);
  for (const reader of readers) reader.close();
  const at95 = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length * 0.95)];
  figure(
    `a change seen by ${READERS} others, ${A_SECOND} changes a second, 95 %`,
    delays.length === READERS * CHANGES ? ms(at95(delays)) : `${READERS * CHANGES - delays.length} lost`,
    `the server's answer to who made it ${ms(at95(answered))}`,
    'under 200 ms',
  );
}
