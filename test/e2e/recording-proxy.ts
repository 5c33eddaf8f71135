import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';
import { gunzipSync } from 'node:zlib';

/**
 * Stands between a browser and the server, and keeps all that the server says: pages, answers, and events as they come.
 */
export interface RecordingProxy {
  readonly address: string;
  /** Heads and bodies of all answers so far as one text, unpacked where they were packed. */
  heard(): string;
  close(): void;
}

export async function recordingProxy(server: string): Promise<RecordingProxy> {
  const answers: { readonly head: string; readonly body: Buffer[] }[] = [];
  const proxy = createServer((asked, answer) => {
    const { host: _, 'accept-encoding': __, ...headers } = asked.headers;
    const sent = request(
      new URL(asked.url!, server),
      { method: asked.method, headers: { ...headers, host: new URL(server).host } },
      (found) => {
        const body: Buffer[] = [];
        answers.push({ head: JSON.stringify(found.headers), body });
        found.on('data', (part: Buffer) => body.push(part));
        answer.writeHead(found.statusCode!, found.headers);
        answer.flushHeaders();
        found.pipe(answer);
      },
    );
    sent.on('error', () => answer.destroy());
    answer.on('close', () => sent.destroy());
    asked.pipe(sent);
  });
  await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
  return {
    address: `http://127.0.0.1:${(proxy.address() as AddressInfo).port}`,
    heard: () => answers.map(({ head, body }) => `${head}\n${textOf(Buffer.concat(body))}`).join('\n'),
    close() {
      proxy.closeAllConnections();
      proxy.close();
    },
  };
}

const textOf = (body: Buffer): string =>
  (body[0] === 0x1f && body[1] === 0x8b ? gunzipSync(body) : body).toString('utf8');
