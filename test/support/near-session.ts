import { vi } from 'vitest';
import { Engine } from '../../src/engine/engine';
import type { FromEngine, ToEngine } from '../../src/protocol/engine-messages';
import { Session } from '../../src/ui/sheet/session';
import { makeSheet } from './arbitrary-sheet';
import { FakeServer } from './fake-server';

/** The worker of the session that is open: what an earlier one still does is nobody's concern. */
let open: NearWorker | null = null;

/** A worker that is no thread of its own: the real engine, one task away. */
class NearWorker {
  /** Requests that are not answered yet. */
  underWay = 0;
  onmessage: ((event: { data: FromEngine }) => void) | null = null;
  private readonly engine = new Engine((events) => this.tell({ v: 1, events }));

  postMessage({ id, v, ...request }: ToEngine): void {
    this.underWay++;
    setTimeout(() => {
      this.engine.answer(request).then(
        (done) => this.tell({ v, id, done }),
        (error: Error) => this.tell({ v, id, failed: error.message }),
      );
    }, 0);
  }

  private tell(data: FromEngine): void {
    const copy = structuredClone(data);
    setTimeout(() => {
      this.onmessage?.({ data: copy });
      if ('id' in data) this.underWay--;
    }, 0);
  }

  terminate(): void {
    this.onmessage = null;
  }
}

/** Lets all that waits be done, however long the machine takes over it. */
export async function settle(): Promise<void> {
  do await new Promise((resolve) => setTimeout(resolve, 25));
  while (open !== null && open.underWay > 0);
}

/** A session over the small sheet of the tests, open and in view. `end` is to be called after the test. */
export async function openSession(): Promise<{ session: Session; server: FakeServer; end: () => void }> {
  const server = new FakeServer(makeSheet());
  vi.stubGlobal('Worker', function () {
    open = new NearWorker();
    return open;
  });
  const session = new Session(server.id);
  const stop = session.start('light');
  await settle();
  session.setViewport({ left: 0, top: 0, right: 2, bottom: 20 });
  await settle();
  return {
    session,
    server,
    end() {
      stop();
      vi.unstubAllGlobals();
    },
  };
}

/** A selection of one cell. */
export const at = (column: number, position: number) => ({ anchor: { column, position }, focus: { column, position } });
