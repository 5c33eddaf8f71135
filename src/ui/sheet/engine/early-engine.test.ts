import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { EARLY_ID, earlyScript, takeEarlyEngine } from './early-engine';

const open = { kind: 'open', sheet: 's1', who: 'person </script> 1', decimal: ',' } as const;

/** What a browser gives the script. */
class FakeWorker {
  readonly posted: unknown[] = [];
  isOver = false;
  onmessage: ((event: { data: unknown }) => void) | null = null;
  postMessage = (message: unknown): void => void this.posted.push(message);
  terminate = (): void => void (this.isOver = true);
}
let worker: FakeWorker;

beforeEach(() => {
  vi.stubGlobal('window', {});
  vi.stubGlobal('document', { documentElement: { dataset: { mantineColorScheme: 'dark' } } });
  vi.stubGlobal('Worker', function () {
    worker = new FakeWorker();
    return worker;
  });
  // As the browser runs it.
  new Function(earlyScript(open))();
});
afterEach(() => vi.unstubAllGlobals());

test('the script opens the sheet in the theme of the page, and nothing in it ends it', () => {
  expect(worker.posted).toEqual([{ ...open, theme: 'dark', id: EARLY_ID }]);
  expect(earlyScript(open)).not.toContain('</');
});

test('the page goes on with the engine that opens the same, once, and has what it said so far', () => {
  worker.onmessage?.({ data: 'said' });
  const early = takeEarlyEngine({ decimal: ',', who: open.who, theme: 'dark', sheet: 's1', kind: 'open' });
  expect(early).toMatchObject({ worker, heard: ['said'] });
  expect(takeEarlyEngine({ ...open, theme: 'dark' })).toBeUndefined();
  expect(worker.isOver).toBe(false);
});

test.each([{ theme: 'light' as const }, { sheet: 's2' }, { reads: {} }])(
  'an engine for anything else is ended: %j',
  (other) => {
    expect(takeEarlyEngine({ ...open, theme: 'dark', ...other })).toBeUndefined();
    expect(worker.isOver).toBe(true);
  },
);
