import { expect, test } from 'vitest';
import { answerQuestion, Asker, type Handlers, type Question, type Reply } from './channel';

type Sums = {
  readonly add: { readonly asked: { readonly numbers: readonly number[] }; readonly answer: number };
  readonly fail: { readonly asked: object; readonly answer: null };
};

const HANDLERS: Handlers<Sums> = {
  add: async ({ numbers }) => Promise.resolve(numbers.reduce((sum, number) => sum + number, 0)),
  fail: () => {
    throw new Error('no sums today');
  },
};

/** Two ends with nothing but a turn of the event loop between them. */
function ends() {
  const events: string[] = [];
  const post = (reply: Reply<string>) => setTimeout(() => asker.hear(structuredClone(reply)));
  const asker: Asker<Sums, string> = new Asker(
    (message) =>
      void answerQuestion(
        message as Question<Sums> & { id: number },
        (asked) => (HANDLERS[(asked as Question<Sums>).kind] as (asked: unknown) => unknown)(asked),
        { post },
      ),
    (event) => events.push(event),
  );
  return { asker, post, events };
}

test('each question has its own answer, one that fails leaves nothing stuck, and events come beside them', async () => {
  const { asker, post, events } = ends();
  const sums = [1, 2, 3].map((last) => asker.ask({ kind: 'add', numbers: [10, last] }));
  const failed = asker.ask({ kind: 'fail' }).catch((error: Error) => error.message);
  post({ event: 'noon' });
  expect([await Promise.all(sums), await failed]).toEqual([[11, 12, 13], 'no sums today']);
  expect(await asker.ask({ kind: 'add', numbers: [] })).toBe(0);
  expect(events).toEqual(['noon']);
});

test('what waits fails where the other end has ended', async () => {
  const asker = new Asker<Sums, never>(
    () => {},
    () => {},
  );
  const waiting = asker.ask({ kind: 'add', numbers: [1] }).catch((error: Error) => error.message);
  asker.failAll('it has ended');
  expect(await waiting).toBe('it has ended');
});

test('a question that cannot be sent fails at once, and is not waited for', async () => {
  let isBroken = true;
  const asker = new Asker<Sums, never>(
    () => {
      if (isBroken) throw new Error('could not be cloned');
    },
    () => {},
  );
  const failed = (kind: 'add' | 'fail') =>
    asker.ask(kind === 'add' ? { kind, numbers: [1] } : { kind }).then(
      () => 'answered',
      (error: Error) => error.message,
    );
  expect(await failed('add')).toBe('could not be cloned');
  isBroken = false;
  const waiting = failed('fail');
  asker.hear({ id: 1, done: 1 });
  asker.hear({ id: 2, failed: 'no' });
  expect(await waiting).toBe('no');
});
