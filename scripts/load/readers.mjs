import { Agent, get } from 'node:http';

const BEFORE = '"id":"load-';
const NEWLINE = 0x0a;

/** Calls with the id of each change in the whole lines of some bytes; what is left over. */
function idsIn(bytes, seen) {
  const end = bytes.lastIndexOf(NEWLINE);
  for (let at = bytes.indexOf(BEFORE); at >= 0 && at < end; at = bytes.indexOf(BEFORE, at + 1)) {
    const from = at + '"id":"'.length;
    seen(bytes.latin1Slice(from, bytes.indexOf('"', from)));
  }
  return bytes.subarray(end + 1);
}

/**
 * Opens a stream of changes once with each of some headers. `seen` is called with the id of each change as it comes to a
 * reader. Returns how to close them.
 */
export async function openReaders(url, readers, seen) {
  const agent = new Agent({ keepAlive: true, maxSockets: Infinity });
  const open = await Promise.all(
    readers.map(
      (headers) =>
        new Promise((resolve, reject) => {
          const asked = get(url, { agent, headers }, (response) => {
            if (response.statusCode !== 200) return reject(new Error(`A reader got ${response.statusCode}.`));
            let rest = Buffer.alloc(0);
            response.on('data', (part) => (rest = idsIn(rest.length ? Buffer.concat([rest, part]) : part, seen)));
            response.on('error', () => {});
            resolve(asked);
          });
          asked.on('error', reject);
        }),
    ),
  );
  return () => {
    for (const asked of open) asked.on('error', () => {}).destroy();
    agent.destroy();
  };
}
