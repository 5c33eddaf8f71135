import { once } from 'node:events';
import { createServer, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, describe, expect, test } from 'vitest';
import { Devices, LOGGER_WAYS, type DeviceReading, type LoggerWay } from './device-readings';
import { runLogger } from './run-logger';

const MINUTE = '2026-03-08 14:30';
const steps = (way: LoggerWay, count: number, seed?: number): DeviceReading[][] => {
  const devices = new Devices(way, seed);
  return Array.from({ length: count }, () => devices.next(MINUTE));
};
const oxygenOf = (readings: readonly DeviceReading[]) => readings.map((reading) => reading['Dissolved oxygen']);

describe('devices', () => {
  test.each(Object.keys(LOGGER_WAYS) as LoggerWay[])(
    '%s: the same seed gives the same readings, another seed others',
    (way) => {
      expect(steps(way, 60, 3)).toEqual(steps(way, 60, 3));
      expect(steps(way, 60, 3)).not.toEqual(steps(way, 60, 4));
    },
  );

  test('steady, one station reads at a time, each in its turn', () => {
    const readings = steps('steady', 22);
    expect(readings.every((sent) => sent.length === 1)).toBe(true);
    expect(new Set(readings.flat().map(({ Station }) => Station)).size).toBe(11);
    expect(readings.flat().every((reading) => typeof reading['Dissolved oxygen'] === 'number')).toBe(true);
  });

  test('bursts come after steps without any, from all stations at once', () => {
    expect(steps('bursts', 8).map((sent) => sent.length)).toEqual([0, 0, 0, 11, 0, 0, 0, 11]);
  });

  test('a drifting sensor runs away from where it was', () => {
    const drifting = steps('drift', 40).map(([, reading]) => Number(reading!['Dissolved oxygen']));
    const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
    expect(mean(drifting.slice(0, 5)) - mean(drifting.slice(-5))).toBeGreaterThan(5);
  });

  test('faults are blanks, error codes, words, and values that stick', () => {
    const told = new Set(oxygenOf(steps('faults', 10).map(([, broken]) => broken!)));
    for (const fault of [null, 'ERR 7', 'sensor error', '-9999']) expect(told).toContain(fault);
  });
});

interface Got {
  readonly key: string | undefined;
  readonly records: readonly DeviceReading[];
}

describe('the logger', () => {
  let close = () => {};
  afterEach(() => close());

  /** A server that gives its answers one request after another, and the last one from then on. */
  async function server(
    ...answers: readonly ((response: ServerResponse, records: number) => void)[]
  ): Promise<{ address: string; got: Got[] }> {
    const got: Got[] = [];
    const made = createServer((request, response) => {
      let text = '';
      request.on('data', (piece: Buffer) => (text += piece.toString()));
      request.on('end', () => {
        const { records } = JSON.parse(text) as { records: DeviceReading[] };
        got.push({ key: request.headers['idempotency-key'] as string | undefined, records });
        answers[Math.min(got.length, answers.length) - 1]!(response, records.length);
      });
    });
    made.listen(0, '127.0.0.1');
    await once(made, 'listening');
    close = () => made.close();
    return { address: `http://127.0.0.1:${(made.address() as AddressInfo).port}`, got };
  }
  const take = (response: ServerResponse, records: number) =>
    response.end(JSON.stringify({ inserted: records, updated: 0, unchanged: 0 }));
  const how = { sheet: 'pond', token: 't', way: 'steady', everyMs: 5 } as const;

  test('counts what the server took, and ends when its time is over', async () => {
    const { address, got } = await server(take);
    const { counts, end } = await runLogger({ ...how, address, forMs: 120 });
    expect(end).toBe('over');
    expect(counts).toMatchObject({ requests: got.length, readings: got.length, inserted: got.length, retried: 0 });
    expect(new Set(got.map(({ key }) => key)).size).toBe(got.length);
  });

  test('sends once more under the same key what was not answered, and loses nothing', async () => {
    const fail = (response: ServerResponse) => response.writeHead(503).end();
    const { address, got } = await server(fail, take);
    const stop = new AbortController();
    const { counts } = await runLogger({ ...how, address, forMs: Infinity, signal: stop.signal }, () => stop.abort());
    expect(counts).toMatchObject({ requests: 2, readings: 1, inserted: 1, retried: 1 });
    expect(got[1]).toEqual(got[0]);
  });

  test('ends with the words of a server that does not take it', async () => {
    const { address } = await server((response) =>
      response.writeHead(401).end(JSON.stringify({ refused: 'This token does not work' })),
    );
    expect(await runLogger({ ...how, address, forMs: Infinity })).toMatchObject({
      counts: { readings: 0 },
      end: { refused: 'This token does not work' },
    });
  });
});
