import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { RecordedChange } from '../../protocol/recorded-change';
import { OwnEntries } from './own-entries';

const entry = (
  sequence: number,
  given: { readonly row?: string; readonly input: string; readonly seen?: number; readonly by?: string },
) => {
  const { row = 'r1', input, seen, by } = given;
  const operations = [{ kind: 'set-cells' as const, cells: [{ row, field: 'f1', input }] }];
  return {
    sequence,
    at: 0,
    change: { id: `c${sequence}`, operations },
    ...(seen === undefined ? {} : { seen }),
    ...(by ? { by } : {}),
  };
};

/*
 * Two writes are concurrent where neither had been seen when the other was made, and of those the later stands: last
 * writer wins (Thomas, "A majority consensus approach to concurrency control", 1979). A lost update is reported then,
 * and only then.
 */
test('an entry is lost to who had not seen it, and not to who had', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          isMine: fc.boolean(),
          row: fc.constantFrom('r1', 'r2'),
          input: fc.constantFrom('1', '2'),
          lag: fc.nat(4),
        }),
        {
          maxLength: 12,
        },
      ),
      (writes) => {
        const own = new OwnEntries();
        /** Who wrote what a cell holds, and as which change. */
        const held = new Map<string, { readonly isMine: boolean; readonly input: string; readonly sequence: number }>();
        for (const [at, { isMine, row, input, lag }] of writes.entries()) {
          const [sequence, seen] = [at + 1, Math.max(0, at - lag)];
          const change: RecordedChange = entry(sequence, { row, input, seen, by: 'Odo' });
          const there = held.get(row);
          if (isMine) own.note(change);
          else {
            const isLost = there?.isMine === true && there.sequence > seen && there.input !== input;
            expect(own.lostTo(change)).toEqual(
              isLost ? [{ row, field: 'f1', mine: there.input, theirs: input, by: 'Odo' }] : [],
            );
          }
          held.set(row, { isMine, input, sequence });
        }
      },
    ),
  );
});

test('a change that does not say what its author had seen takes nothing from anybody; one without a name is by nobody', () => {
  const own = new OwnEntries();
  own.note(entry(1, { input: 'mine' }));
  expect(own.lostTo(entry(2, { input: 'theirs' }))).toEqual([]);
  own.note(entry(3, { input: 'mine' }));
  expect(own.lostTo(entry(4, { input: 'theirs', seen: 2 }))).toMatchObject([{ by: null }]);
});

test('a paste is no entry: neither is it remembered, nor does it take anything away', () => {
  const cells = Array.from({ length: 21 }, (_, at) => ({ row: `r${at}`, field: 'f1', input: 'pasted' }));
  const paste = (sequence: number): RecordedChange => ({
    sequence,
    at: 0,
    seen: 0,
    change: { id: `p${sequence}`, operations: [{ kind: 'set-cells', cells }] },
  });
  const own = new OwnEntries();
  own.note(paste(1));
  expect(own.lostTo(entry(2, { input: 'x', seen: 0 }))).toEqual([]);
  own.note(entry(3, { input: 'mine' }));
  expect(own.lostTo(paste(4))).toEqual([]);
});

test('what was entered last is remembered longest', () => {
  const own = new OwnEntries();
  for (let at = 1; at <= 201; at++) own.note(entry(at, { row: `r${at}`, input: 'mine' }));
  expect(own.lostTo(entry(300, { row: 'r1', input: 'x', seen: 0 }))).toEqual([]);
  expect(own.lostTo(entry(301, { row: 'r2', input: 'x', seen: 0 }))).toHaveLength(1);
});
