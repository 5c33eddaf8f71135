import { vi } from 'vitest';
import { englishTexts } from './english-texts';
import { Engine } from '../../src/engine/engine';
import { answerQuestion, type Reply } from '../../src/protocol/channel';
import type { Event, Request } from '../../src/protocol/engine-messages';
import { Session } from '../../src/ui/sheet/session';
import { makeSheet } from './arbitrary-sheet';
import { FakeServer } from './fake-server';

/** The worker of the session that is open: what an earlier one still does is nobody's concern. */
let open: NearWorker | null = null;

/** A worker that is no thread of its own: the real engine, one task away. */
class NearWorker {
  /** Requests that are not answered yet. */
  underWay = 0;
  onmessage: ((event: { data: Reply<readonly Event[]> }) => void) | null = null;
  private readonly engine = new Engine((event) => this.post({ event }));

  postMessage(message: Request & { readonly id: number }): void {
    this.underWay++;
    setTimeout(() => {
      void answerQuestion(message, (request) => this.engine.answer(request as Request), {
        post: (reply) => this.post(reply),
      });
    }, 0);
  }

  private post(reply: Reply<readonly Event[]>): void {
    const copy = structuredClone(reply);
    setTimeout(() => {
      this.onmessage?.({ data: copy });
      if ('id' in reply) this.underWay--;
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
  const session = new Session(server.id, englishTexts('sheet'));
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
