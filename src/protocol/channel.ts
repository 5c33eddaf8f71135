// One way of asking across threads and processes: the page and its workers, the server and its worker processes.

/** Questions by name, each with its parameters and its answer. */
export interface Questions {
  readonly [name: string]: { readonly asked: object; readonly answer: unknown };
}

export type QuestionName<Q extends Questions> = keyof Q & string;

/** A question as it is asked: its name as `kind`, beside what is asked. */
export type Question<Q extends Questions, K extends QuestionName<Q> = QuestionName<Q>> = {
  readonly [N in K]: { readonly kind: N } & Q[N]['asked'];
}[K];

/** A message of the answering end: the answer to a question, or an event. */
export type Reply<E> =
  | { readonly id: number; readonly done: unknown }
  | { readonly id: number; readonly failed: string }
  | { readonly event: E };

/** One handler a question: one that returns the wrong shape does not compile. */
export type Handlers<Q extends Questions> = {
  readonly [K in QuestionName<Q>]: (asked: Question<Q, K>) => Q[K]['answer'] | Promise<Q[K]['answer']>;
};

interface Waiting {
  readonly done: (answer: unknown) => void;
  readonly failed: (error: Error) => void;
}

/** The end that asks. Each question ends in exactly one answer or failure; one that fails leaves nothing behind. */
export class Asker<Q extends Questions, E> {
  private readonly waiting = new Map<number, Waiting>();
  private lastId = 0;

  constructor(
    private readonly post: (message: object) => void,
    private readonly onEvent: (event: E) => void,
  ) {}

  /** Asks; rejects with the words of the other end where that fails. */
  ask<K extends QuestionName<Q>>(question: Question<Q, K>): Promise<Q[K]['answer']> {
    const id = ++this.lastId;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { done: resolve as (answer: unknown) => void, failed: reject });
      try {
        this.post({ ...question, id });
      } catch (error) {
        // What cannot be sent, such as a function, is not waited for.
        this.waiting.delete(id);
        throw error;
      }
    });
  }

  /** Waits for the answer to a question that was asked before this end was there, under a number below 1. */
  await(id: number): Promise<unknown> {
    return new Promise((done, failed) => this.waiting.set(id, { done, failed }));
  }

  /** To be called with each message of the other end. */
  hear(reply: Reply<E>): void {
    if ('event' in reply) return this.onEvent(reply.event);
    const waiting = this.waiting.get(reply.id);
    this.waiting.delete(reply.id);
    if ('failed' in reply) waiting?.failed(new Error(reply.failed));
    else waiting?.done(reply.done);
  }

  /** Fails everything that waits, where the other end has ended. */
  failAll(message: string): void {
    for (const { failed } of this.waiting.values()) failed(new Error(message));
    this.waiting.clear();
  }
}

/** Answers a question that arrived, and posts the reply. `words` gives the message of an error. */
export async function answerQuestion<Q extends { readonly id: number }>(
  message: Q,
  answer: (question: Omit<Q, 'id'>) => unknown,
  {
    post,
    words = wordsOf,
  }: { readonly post: (reply: Reply<never>) => void; readonly words?: (error: unknown) => string },
): Promise<void> {
  const { id, ...question } = message;
  try {
    post({ id, done: await answer(question) });
  } catch (error) {
    post({ id, failed: words(error) });
  }
}

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
