import fc from 'fast-check';
import { expect, test } from 'vitest';
import { anyOperation, contentsOf, makeSheet } from '../../../test/support/arbitrary-sheet';
import { reportEvaluation } from '../../core/rules/evaluate/evaluate-report';
import { holdRanges } from '../../core/formula/resolve/hold-ranges';
import { withFollowers } from '../../core/rules/move/follow-layout';
import { operationsOf, type Edit } from '../../core/edit/registry';
import type { Change, Operation } from '../../core/sheet/change';
import type { RecordedChange } from '../../protocol/recorded-change';
import { Replica } from './replica';
import { UndoStack } from './undo-stack';

/**
 * Who does something next: makes a change, hears the next one of the log, or gets the oldest of theirs into the log (or
 * refused).
 */
const step = fc.record({
  who: fc.integer({ min: 0, max: 1 }),
  does: fc.constantFrom('make', 'hear', 'hear-all', 'send', 'be-refused'),
  operations: fc.array(anyOperation, { minLength: 1, maxLength: 3 }),
});

/** Two people with a copy of one sheet each, and the log of the server between them. */
function twoPeople() {
  const log: RecordedChange[] = [];
  const people = [0, 1].map(() => ({
    replica: new Replica(makeSheet(), 0, { theme: 'light', nowMs: 0 }),
    queue: [] as Change[],
  }));
  type Person = (typeof people)[number];
  const make = ({ replica, queue }: Person, change: Change) => {
    replica.apply(change);
    queue.push(change);
  };
  const send = ({ queue }: Person) => {
    const change = queue.shift();
    if (change) log.push({ sequence: log.length + 1, at: log.length, change });
  };
  const hear = ({ replica }: Person, most = 1) =>
    void replica.receiveAll(log.slice(replica.sequence, replica.sequence + most));
  /** All that waits is sent, and everybody hears all of it. */
  const settle = () => {
    for (const person of people) while (person.queue.length) send(person);
    for (const person of people) log.forEach(() => hear(person));
  };
  return { people, log, make, send, hear, settle };
}

test('replicas that have heard the same log agree, whatever each did meanwhile', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 25 }), (steps) => {
      const { people, make, send, hear, settle } = twoPeople();
      steps.forEach(({ who, does, operations }, at) => {
        const person = people[who]!;
        if (does === 'make') make(person, { id: `change ${at}`, operations });
        else if (does === 'send') send(person);
        else if (does === 'hear') hear(person);
        else if (does === 'hear-all') hear(person, Infinity);
        else if (person.queue.length) person.replica.refuse(person.queue.shift()!.id);
      });
      settle();
      const [one, other] = people.map(({ replica }) => replica);
      expect(contentsOf(one!.sheet)).toEqual(contentsOf(other!.sheet));
      expect(reportEvaluation(one!.evaluation)).toEqual(reportEvaluation(other!.evaluation));
      expect(one!.waiting).toEqual([]);
    }),
    { numRuns: 300 },
  );
});

test('a change in parts that is stopped leaves everything as it was, and one that is not is what it is at once', async () => {
  const stopping = fc.record({ operations: fc.array(anyOperation, { minLength: 1, maxLength: 6 }), rests: fc.nat(8) });
  await fc.assert(
    fc.asyncProperty(stopping, async ({ operations, rests }) => {
      const [parts, whole, before] = [0, 1, 2].map(() => new Replica(makeSheet(), 0, { theme: 'light', nowMs: 0 }));
      let rested = 0;
      const rest = () => (rested++ < rests ? Promise.resolve() : Promise.reject(new Error('stopped')));
      const isDone = await parts!.applyInParts({ id: 'c', operations }, rest).then(
        () => true,
        () => false,
      );
      whole!.apply({ id: 'c', operations });
      const expected = isDone ? whole! : before!;
      expect(contentsOf(parts!.sheet)).toEqual(contentsOf(expected.sheet));
      expect(reportEvaluation(parts!.evaluation)).toEqual(reportEvaluation(expected.evaluation));
      expect(parts!.waiting).toEqual(expected.waiting);
    }),
    { numRuns: 300 },
  );
});

test('a change that comes twice is taken once', () => {
  const replica = new Replica(makeSheet(), 0, { theme: 'light', nowMs: 0 });
  const change = {
    id: 'c',
    operations: [{ kind: 'set-cells' as const, cells: [{ row: 'r0', field: 'f1', input: 'new' }] }],
  };
  replica.receive({ sequence: 1, at: 0, change });
  replica.sheet.apply({ kind: 'set-cells', cells: [{ row: 'r0', field: 'f1', input: 'later' }] });
  replica.receive({ sequence: 1, at: 0, change });
  expect(replica.sheet.column(0).inputAt(replica.sheet.findSlot('r0')!)).toBe('later');
});

test('undo and redo walk back and forth through what was done, but for what came to nothing', () => {
  const sheet = makeSheet();
  const undo = new UndoStack();
  let made = 0;
  const run = (operations: readonly Operation[], says: string) => ({
    says,
    changeId: `c${++made}`,
    inverse: operations.flatMap((operation) => sheet.apply(operation).inverse),
  });
  const first = () => sheet.column(0).inputAt(sheet.findSlot('r0')!);
  for (const input of ['one', 'two'])
    undo.made(run([{ kind: 'set-cells', cells: [{ row: 'r0', field: 'f1', input }] }], input));
  const seen = (['undo', 'undo', 'undo', 'redo', 'redo', 'redo'] as const).map((direction) => {
    const step = undo.top(direction);
    if (step) undo.stepped(direction, run(step.inverse, step.says));
    return first();
  });
  expect(seen).toEqual(['one', '5', '5', 'one', 'two', 'two']);
  undo.forget(`c${made}`);
  expect(undo.next).toEqual({ undo: 'one', redo: null });
});

test('whatever two people sort, insert, move and remove meanwhile, an entry stays in the record it was made in, and none is lost', () => {
  const doing = fc.oneof(
    fc.record({
      kind: fc.constantFrom('enter' as const, 'sum' as const),
      row: fc.nat(9),
      field: fc.constantFrom('f1', 'f2'),
    }),
    fc.record({
      kind: fc.constant('edit' as const),
      edit: fc.oneof<fc.Arbitrary<Edit>[]>(
        fc.record({
          do: fc.constant('sort-rows' as const),
          by: fc.constantFrom([{ column: 0, order: 'rising' as const }], [{ column: 1, order: 'falling' as const }]),
        }),
        fc.record({
          do: fc.constant('insert-rows' as const),
          at: fc.integer({ min: 1, max: 5 }),
          count: fc.constant(2),
        }),
        fc.record({
          do: fc.constant('move-rows' as const),
          top: fc.constant(2),
          bottom: fc.constant(3),
          to: fc.integer({ min: 5, max: 8 }),
        }),
        fc.record({ do: fc.constant('remove-rows' as const), top: fc.constantFrom(1, 4), bottom: fc.constant(4) }),
        fc.record({
          do: fc.constant('move-fields' as const),
          left: fc.constant(0),
          right: fc.constant(0),
          to: fc.constant(3),
        }),
      ),
    }),
    fc.record({ kind: fc.constantFrom('send' as const, 'hear' as const) }),
  );
  const SUM = '=SUM(⟦f1~$r2⟧:⟦f1~$r6⟧)';
  let ids = 0;
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.nat(1), doing), { maxLength: 30 }), (steps) => {
      const { people, log, make, send, hear, settle } = twoPeople();
      /** The last entry of each cell, in the order of the log. */
      const entered = (): Map<string, string> => {
        const cells = log
          .flatMap(({ change }) => change.operations)
          .flatMap((operation) => (operation.kind === 'set-cells' ? operation.cells : []));
        return new Map(
          cells.filter(({ was }) => was === undefined).map(({ row, field, input }) => [`${row} ${field}`, input]),
        );
      };
      steps.forEach(([who, does], at) => {
        const person = people[who]!;
        const { sheet } = person.replica;
        if (does.kind === 'send') return send(person);
        if (does.kind === 'hear') return hear(person);
        const asked: readonly Operation[] =
          does.kind === 'enter' || does.kind === 'sum'
            ? [
                {
                  kind: 'set-cells',
                  cells: [
                    { row: `r${does.row}`, field: does.field, input: does.kind === 'enter' ? `entry ${at}` : SUM },
                  ],
                },
              ]
            : does.kind === 'edit' && sheet.rowCount > 8
              ? operationsOf(sheet, does.edit, { newId: () => `new ${++ids}` })
              : [];
        // As the engine does it: with what lets ranges follow.
        const held = holdRanges(sheet, asked);
        const operations: Operation[] = [
          ...(held.length ? [{ kind: 'set-cells' as const, cells: held }] : []),
          ...withFollowers(sheet, asked),
        ];
        if (operations.length) make(person, { id: `change ${at}`, operations });
      });
      settle();
      const [one, other] = people.map(({ replica }) => replica.sheet);
      expect(contentsOf(one!)).toEqual(contentsOf(other!));
      for (const [cell, input] of entered()) {
        const [row, field] = cell.split(' ') as [string, string];
        const slot = one!.findSlot(row);
        // A sum is rewritten as its rows go; a text stands as it was typed.
        if (slot !== undefined && input !== SUM) expect(one!.column(one!.findColumn(field)!).inputAt(slot)).toBe(input);
      }
    }),
    { numRuns: 1000 },
  );
});

test.each(['the entry first', 'the removal first'])(
  'an entry in a cell whose formula is rewritten meanwhile is kept: %s',
  (order) => {
    const { people, make, send, settle } = twoPeople();
    const sum = { row: 'r9', field: 'f3', input: '=SUM(⟦f1~$r2⟧:⟦f1~$r6⟧)' };
    make(people[0]!, { id: 'sum', operations: [{ kind: 'set-cells', cells: [sum] }] });
    settle();
    // One removes the last row of the range, which rewrites the sum; the other types over the sum, before either hears
    // of it.
    const removal: Operation[] = [{ kind: 'remove-rows', rows: ['r6'] }];
    const held = holdRanges(people[0]!.replica.sheet, removal);
    expect(held).toHaveLength(1);
    make(people[0]!, { id: 'removal', operations: [{ kind: 'set-cells', cells: held }, ...removal] });
    make(people[1]!, { id: 'entry', operations: [{ kind: 'set-cells', cells: [{ ...sum, input: 'typed over' }] }] });
    for (const person of order === 'the entry first' ? people.toReversed() : people) send(person);
    settle();
    for (const { replica } of people)
      expect(replica.sheet.column(2).inputAt(replica.sheet.findSlot('r9')!)).toBe('typed over');
  },
);
