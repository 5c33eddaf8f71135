import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { afterEach, expect, test } from 'vitest';
import { beginWorker } from '../../src/server/workers/begin-worker';
import { WorkerPool } from '../../src/server/workers/worker-pool';
import { WorkerError } from '../../src/server/workers/worker-process';
import type { WorkerRequests } from '../../src/server/workers/worker-messages';

interface Requests extends WorkerRequests {
  readonly open: { readonly asked: object; readonly answer: null };
  readonly where: {
    readonly asked: object;
    readonly answer: { readonly pid: number; readonly isOpen: boolean; readonly env: Record<string, string> };
  };
  readonly spin: { readonly asked: { readonly ms: number }; readonly answer: null };
  readonly abort: { readonly asked: object; readonly answer: null };
  readonly hoard: { readonly asked: object; readonly answer: null };
  readonly fail: { readonly asked: object; readonly answer: null };
}

let pool: WorkerPool<Requests, never> | undefined;
afterEach(() => pool?.end());

function begin({ processes = 1, memoryMb = 256, spinMs = 20_000 } = {}) {
  const told = { lost: [] as string[], tooCostly: [] as string[] };
  const script = join(process.cwd(), 'test/support/tame-worker.cjs');
  pool = new WorkerPool<Requests, never>(
    { processes, begin: () => beginWorker(script, memoryMb), opening: ['open'], deadlines: { spin: spinMs } },
    { event: () => {}, lost: (sheet) => told.lost.push(sheet), tooCostly: (sheet) => told.tooCostly.push(sheet) },
  );
  return { pool, told };
}

test('requests of a sheet are answered in its worker, which knows nothing of the server’s secrets', async () => {
  const { pool } = begin();
  process.env.DATABASE_URL ??= 'postgres://secret';
  await pool.ask('open', 'a', {});
  const { isOpen, env, pid } = await pool.ask('where', 'a', {});
  expect({ isOpen, isOther: pid !== process.pid }).toEqual({ isOpen: true, isOther: true });
  expect(Object.keys(env).filter((name) => /DATABASE|AUXESIS|SECRET/.test(name))).toEqual([]);
  await expect(pool.ask('fail', 'a', {})).rejects.toThrow('no such thing');
});

test('what is not answered by its deadline ends its worker; the other sheets there go on in another', async () => {
  const { pool, told } = begin({ spinMs: 3500 });
  await pool.ask('open', 'heavy', {});
  await pool.ask('open', 'light', {});
  const { pid } = await pool.ask('where', 'light', {});
  await expect(pool.ask('spin', 'heavy', { ms: 60_000 })).rejects.toMatchObject({ failure: 'too-costly' });
  expect(told).toEqual({ lost: ['heavy', 'light'], tooCostly: ['heavy'] });
  // It is known that it is not open any more: nobody works with what is not there.
  await expect(pool.ask('where', 'light', {})).rejects.toMatchObject({ failure: 'moved' });
  await pool.ask('open', 'light', {});
  expect((await pool.ask('where', 'light', {})).pid).not.toBe(pid);
});

test.each(['abort', 'hoard'] as const)(
  'a worker that falls over (%s) takes nothing else along; the sheet is to blame where it happens again',
  async (kind) => {
    const { pool, told } = begin({ memoryMb: 64 });
    await pool.ask('open', 'heavy', {});
    await expect(pool.ask(kind, 'heavy', {})).rejects.toBeInstanceOf(WorkerError);
    await pool.ask('open', 'heavy', {});
    await expect(pool.ask(kind, 'heavy', {})).rejects.toBeInstanceOf(WorkerError);
    expect(told.tooCostly).toEqual(['heavy']);
    await pool.ask('open', 'heavy', {});
    expect((await pool.ask('where', 'heavy', {})).isOpen).toBe(true);
  },
);

test('a sheet does not wait for another that takes long: it moves on, and what was kept of it is given up', async () => {
  const { pool, told } = begin();
  await pool.ask('open', 'heavy', {});
  await pool.ask('open', 'light', {});
  const order: string[] = [];
  const heavy = pool.ask('spin', 'heavy', { ms: 5000 }).then(() => order.push('heavy'));
  const before = await pool.ask('where', 'light', {}).catch((error: unknown) => error);
  expect(before).toMatchObject({ failure: 'moved' });
  expect(told.lost).toEqual(['light']);
  await pool.ask('open', 'light', {});
  order.push('light');
  await heavy;
  expect(order).toEqual(['light', 'heavy']);
  expect(told.tooCostly).toEqual([]);
});

test('a sheet that waits for one and then for another moves on as well; what moved before stays where it is', async () => {
  const { pool, told } = begin();
  for (const sheet of ['short', 'heavy', 'light', 'late']) await pool.ask('open', sheet, {});
  // The light one first waits for the short one, whose work is over before anybody loses patience.
  const others = [pool.ask('spin', 'short', { ms: 150 }), pool.ask('spin', 'heavy', { ms: 5000 })];
  await expect(pool.ask('where', 'light', {})).rejects.toMatchObject({ failure: 'moved' });
  await pool.ask('open', 'light', {});
  const { pid } = await pool.ask('where', 'light', {});
  await expect(pool.ask('where', 'late', {})).rejects.toMatchObject({ failure: 'moved' });
  expect((await pool.ask('where', 'light', {})).pid).toBe(pid);
  expect(told.lost).toEqual(['light', 'late']);
  await Promise.all(others);
});

test('a worker that cannot be started leaves nobody waiting', async () => {
  pool = new WorkerPool<Requests, never>(
    {
      processes: 1,
      begin: () => spawn('/no/such/program', { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] }),
      opening: ['open'],
      deadlines: {},
    },
    { event: () => {}, lost: () => {}, tooCostly: () => {} },
  );
  await expect(pool.ask('open', 'a', {})).rejects.toBeInstanceOf(WorkerError);
});

test('no more requests wait than there is room for', async () => {
  const { pool } = begin();
  await pool.ask('open', 'a', {});
  const spinning = pool.ask('spin', 'a', { ms: 300 });
  const asked = Array.from({ length: 600 }, () =>
    pool.ask('where', 'a', {}).then(String, (error: Error & { code?: string }) => error.code),
  );
  expect((await Promise.all(asked)).filter((answer) => answer === 'too-busy').length).toBeGreaterThan(50);
  await spinning;
});
