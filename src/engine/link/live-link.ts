import { parseMessage, readMessage } from '../../protocol/parse-message';
import { sheetUrl } from '../../protocol/sheet-url';
import { itemAt } from '../../core/values/item-at';
import type { Change } from '../../core/sheet/change';
import type { SheetId } from '../../core/sheet/ids';
import type { Repaint } from '../../protocol/packed/painted-sheet';
import type { Present } from '../../protocol/presence';
import type { ChangeAnswer, RecordedChange, SentChange } from '../../protocol/recorded-change';

/** What comes from the server, or becomes of what was sent to it. */
export type LinkEvent =
  | { readonly kind: 'changes'; readonly changes: readonly RecordedChange[] }
  | { readonly kind: 'repaint'; readonly repaint: Repaint }
  /** Who has the sheet open. */
  | { readonly kind: 'presence'; readonly people: readonly Present[] }
  | { readonly kind: 'accepted'; readonly change: Change; readonly sequence: number }
  | { readonly kind: 'refused'; readonly change: Change; readonly message: string }
  /** The log has moved on too far, or the stream cannot be resumed: the sheet must be loaded again. */
  | { readonly kind: 'stale' }
  /** Access has ended, or changed. */
  | { readonly kind: 'closed' }
  | { readonly kind: 'state'; readonly state: 'live' | 'busy' | 'offline' };

/** A server that answers, and fails so often over the same change, will not take it. */
const FAILURES_TO_REFUSE = 6;

const RETRY_MS = [250, 500, 1000, 2000, 4000];

/** Changes that go in one request, and their characters altogether; a longer one goes alone. */
const MOST_AT_ONCE = 50;
const MOST_CHARACTERS = 100_000;

/**
 * The way to the server and back. Changes are sent in their order, several at once where several wait, and again until
 * they are answered: their ids make sending twice harmless. The stream of changes resumes after the last sequence that
 * came in.
 */
export class LiveLink {
  private readonly queue: SentChange[] = [];
  private state: 'idle' | 'sending' = 'idle';
  private stream: EventSource | null = null;
  private tries = 0;
  /** How long the server asked to wait, and some more, so that not all come back at once. */
  private restMs = 0;
  /** How often the server has failed over the change that is being sent. */
  private failures = 0;

  constructor(
    private readonly sheet: SheetId,
    /** The address of the stream from where the sheet is now. */
    private readonly from: () => string,
    private readonly tell: (event: LinkEvent) => void,
  ) {
    this.listen();
  }

  /** How many changes the server has not answered yet. */
  get unacknowledged(): number {
    return this.queue.length;
  }

  send(change: SentChange): void {
    this.queue.push(change);
    if (this.state === 'idle') void this.drain();
  }

  close(): void {
    this.stream?.close();
    this.stream = null;
  }

  private listen(): void {
    const stream = new EventSource(this.from());
    this.stream = stream;
    stream.onopen = () => this.reached();
    stream.addEventListener('changes', ({ data }: MessageEvent<string>) =>
      this.tell({ kind: 'changes', changes: parseMessage<RecordedChange[]>(data) }),
    );
    stream.addEventListener('presence', ({ data }: MessageEvent<string>) =>
      this.tell({ kind: 'presence', people: parseMessage<Present[]>(data) }),
    );
    stream.addEventListener('repaint', ({ data }: MessageEvent<string>) =>
      this.tell({ kind: 'repaint', repaint: parseMessage<Repaint>(data) }),
    );
    stream.addEventListener('stale', () => {
      stream.close();
      this.tell({ kind: 'stale' });
    });
    stream.addEventListener('closed', () => this.end());
    stream.onerror = () => {
      // The browser's own retry asks for the address it was given; a new stream asks from where we are.
      stream.close();
      this.tell({ kind: 'state', state: 'offline' });
      setTimeout(() => this.stream === stream && this.listen(), this.pause());
    };
  }

  /** What waits stays, in case the reader comes back. */
  private end(): void {
    this.close();
    this.tell({ kind: 'closed' });
  }

  private async drain(): Promise<void> {
    this.state = 'sending';
    while (this.queue.length > 0) {
      const bodies = this.due();
      const answers = await this.post(bodies);
      if (answers === 'never') return;
      if (answers === 'again') {
        await new Promise((resolve) => setTimeout(resolve, Math.max(this.pause(), this.restMs)));
        this.restMs = 0;
        continue;
      }
      this.failures = 0;
      this.queue.splice(0, bodies.length).forEach((change, at) => {
        const answer = itemAt(answers, at);
        if ('refused' in answer) this.tell({ kind: 'refused', change, message: answer.refused });
        else this.tell({ kind: 'accepted', change, sequence: answer.sequence });
      });
    }
    this.state = 'idle';
  }

  /** The changes that go next, as JSON. After a failure one alone, so that what it is about is no harm to the others. */
  private due(): string[] {
    const bodies: string[] = [];
    let left = MOST_CHARACTERS;
    for (const change of this.queue.slice(0, this.failures > 0 ? 1 : MOST_AT_ONCE)) {
      const body = JSON.stringify(change);
      left -= body.length;
      if (left < 0 && bodies.length > 0) break;
      bodies.push(body);
    }
    return bodies;
  }

  /** Sends one change, or several as a list, which is answered by a list. */
  private async post(bodies: readonly string[]): Promise<readonly ChangeAnswer[] | 'again' | 'never'> {
    const isOne = bodies.length === 1;
    try {
      const response = await fetch(sheetUrl(this.sheet, 'changes'), {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: isOne ? itemAt(bodies, 0) : `[${bodies.join()}]`,
      });
      // Signing out loses nothing: it is sent after the next sign-in.
      if (response.status === 401) {
        this.end();
        return 'never';
      }
      // It says itself that it will take it later.
      if (response.status === 503 || response.status === 429) {
        this.tell({ kind: 'state', state: 'busy' });
        this.restMs = 1000 * Number(response.headers.get('retry-after') ?? 0) * (1 + Math.random() / 2);
        return 'again';
      }
      if (response.status >= 500 && ++this.failures < FAILURES_TO_REFUSE) throw new Error(`status ${response.status}`);
      this.reached();
      if (isOne) return [await readMessage<ChangeAnswer>(response)];
      const answers = await readMessage<readonly ChangeAnswer[] | { readonly refused: string }>(response);
      // What is wrong with the request concerns one of them: each is sent by itself.
      if (!('refused' in answers)) return answers;
      this.failures++;
      return 'again';
    } catch {
      this.tell({ kind: 'state', state: 'offline' });
      return 'again';
    }
  }

  private reached(): void {
    this.tries = 0;
    this.tell({ kind: 'state', state: 'live' });
  }

  private pause(): number {
    return itemAt(RETRY_MS, Math.min(this.tries++, RETRY_MS.length - 1));
  }
}
