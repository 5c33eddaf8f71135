import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { describe, expect, test } from 'vitest';
import { COMMAND, auxesis, file, folder } from './run-command';

describe('push', () => {
  interface Got {
    readonly path: string;
    readonly token: string | undefined;
    readonly body: { readonly key?: unknown; readonly records: readonly object[] };
  }
  /** The requests to a server while a command runs; it accepts everything, or refuses from the second request on. */
  async function pushed(args: readonly string[], refuses = false) {
    const got: Got[] = [];
    const server = createServer((request, response) => {
      let text = '';
      request.on('data', (piece: Buffer) => (text += piece.toString()));
      request.on('end', () => {
        const body = JSON.parse(text) as Got['body'];
        got.push({ path: request.url!, token: request.headers.authorization, body });
        const isRefused = refuses && got.length > 1;
        response
          .writeHead(isRefused ? 403 : 200)
          .end(
            JSON.stringify(
              isRefused ? { refused: 'no more' } : { inserted: body.records.length, updated: 0, unchanged: 0 },
            ),
          );
      });
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as AddressInfo;
    const child = spawn(COMMAND, ['push', ...args, '--url', `http://127.0.0.1:${port}`, '--token', 't'], {
      cwd: folder,
    });
    let [stdout, stderr] = ['', ''];
    child.stdout.on('data', (piece: Buffer) => (stdout += piece.toString()));
    child.stderr.on('data', (piece: Buffer) => (stderr += piece.toString()));
    const [status] = (await once(child, 'exit')) as [number];
    server.close();
    return { got, status, stdout, stderr };
  }

  test('sends what formulas give, dates as they are meant, and codes that stay codes', async () => {
    const typed = file('typed.csv', "Code,Day,Oxygen,Twice\n'007,8/3/2026,4.9,=C2*2\n,,,\nB,9/3/2026,,TRUE\n");
    const { got, status, stdout } = await pushed([
      typed,
      '--sheet',
      'pond',
      '--key',
      'Code',
      '--key',
      'Day',
      '--dates',
      'dmy',
      '--total',
      'Oxygen=average',
    ]);
    expect({ status, stdout: JSON.parse(stdout) as object }).toEqual({
      status: 0,
      stdout: { inserted: 2, updated: 0, unchanged: 0 },
    });
    expect(got).toEqual([
      {
        path: '/api/v1/sheets/pond/records',
        token: 'Bearer t',
        body: {
          key: ['Code', 'Day'],
          records: [
            { Code: "'007", Day: '2026-03-08', Oxygen: 4.9, Twice: 9.8 },
            { Code: 'B', Day: '2026-03-09', Oxygen: null, Twice: true },
          ],
          totals: { Oxygen: 'average' },
        },
      },
    ]);
  });

  test('sends many records in parts, and says what was entered before it failed', async () => {
    const many = file('many.csv', `Station\n${Array.from({ length: 1500 }, (_, at) => `S${at}`).join('\n')}\n`);
    const { got, status, stderr } = await pushed([many, '--sheet', 'pond'], true);
    expect(got.map(({ body }) => body.records.length)).toEqual([1000, 500]);
    expect({ status, stderr }).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('no more; the 1000 records before are entered') as string,
    });
  });

  test.each([
    [['data.csv', '--token', 't'], 'say with --sheet which sheet'],
    [['data.csv', '--sheet', 'x', '--url', 'nowhere'], 'expected an address'],
    [['data.csv', '--sheet', 'x'], 'there is no token'],
    [['data.csv', '--sheet', 'x', '--token', 't', '--total', 'Depth=all'], 'such as Depth=sum'],
    [['data.csv', '--sheet', 'x', '--token', 't', '--url', 'http://127.0.0.1:9'], 'cannot be reached'],
  ])('%j is refused in words', (args, words) => {
    expect(auxesis(['push', ...args])).toMatchObject({
      status: 2,
      stdout: '',
      stderr: expect.stringContaining(words) as string,
    });
  });
});
