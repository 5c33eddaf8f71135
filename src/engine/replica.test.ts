import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyOperation, contentsOf, makeSheet } from '../../test/arbitrary-sheet';
import { reportEvaluation } from '../core/rules/evaluate-report';
import type { Change, Operation } from '../core/sheet/change';
import type { RecordedChange } from '../protocol/recorded-change';
import { Replica } from './replica';
import { UndoStack } from './undo-stack';

/** Who does something next: makes a change, hears the next one of the log, or gets the oldest of theirs into the log (or refused). */
const step = fc.record({
  who: fc.integer({ min: 0, max: 1 }),
  does: fc.constantFrom('make', 'hear', 'send', 'be-refused'),
  operations: fc.array(anyOperation, { minLength: 1, maxLength: 3 }),
});

test('replicas that have heard the same log agree, whatever each did meanwhile', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
      const log: RecordedChange[] = [];
      const people = [0, 1].map(() => ({ replica: new Replica(makeSheet(), 0, { theme: 'light', nowMs: 0 }), queue: [] as Change[] }));
      const send = ({ queue }: (typeof people)[number]) => {
        const change = queue.shift();
        if (change) log.push({ sequence: log.length + 1, change });
      };
      const hear = ({ replica }: (typeof people)[number]) => {
        const next = log[replica.sequence];
        if (next) replica.receive(next);
      };
      steps.forEach(({ who, does, operations }, at) => {
        const person = people[who]!;
        if (does === 'make') {
          const change = { id: `change ${at}`, operations };
          person.replica.apply(change);
          person.queue.push(change);
        } else if (does === 'send') send(person);
        else if (does === 'hear') hear(person);
        else if (person.queue.length) person.replica.refuse(person.queue.shift()!.id);
      });
      for (const person of people) while (person.queue.length) send(person);
      for (const person of people) log.forEach(() => hear(person));
      const [one, other] = people.map(({ replica }) => replica);
      expect(contentsOf(one!.sheet)).toEqual(contentsOf(other!.sheet));
      expect(reportEvaluation(one!.evaluation)).toEqual(reportEvaluation(other!.evaluation));
      expect(one!.waiting).toEqual([]);
    }),
    { numRuns: 300 },
  );
});

test('a change that comes twice is taken once', () => {
  const replica = new Replica(makeSheet(), 0, { theme: 'light', nowMs: 0 });
  const change = { id: 'c', operations: [{ kind: 'set-cells' as const, cells: [{ row: 'r0', field: 'f1', input: 'new' }] }] };
  replica.receive({ sequence: 1, change });
  replica.sheet.apply({ kind: 'set-cells', cells: [{ row: 'r0', field: 'f1', input: 'later' }] });
  replica.receive({ sequence: 1, change });
  expect(replica.sheet.columns[0]!.inputAt(replica.sheet.findSlot('r0')!)).toBe('later');
});

test('undo and redo walk back and forth through what was done, but for what came to nothing', () => {
  const sheet = makeSheet();
  const undo = new UndoStack();
  let made = 0;
  const run = (operations: readonly Operation[]) => ({
    changeId: `c${++made}`,
    inverse: operations.flatMap((operation) => sheet.apply(operation).inverse),
  });
  const first = () => sheet.columns[0]!.inputAt(sheet.findSlot('r0')!);
  for (const input of ['one', 'two']) undo.made(run([{ kind: 'set-cells', cells: [{ row: 'r0', field: 'f1', input }] }]));
  const seen = (['undo', 'undo', 'undo', 'redo', 'redo', 'redo'] as const).map((direction) => `${undo.step(direction, run)} ${first()}`);
  expect(seen).toEqual(['true one', 'true 5', 'false 5', 'true one', 'true two', 'false two']);
  undo.forget(`c${made}`);
  expect(undo.depth).toEqual({ undo: 1, redo: 0 });
});
