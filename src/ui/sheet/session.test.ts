import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { stateAfter } from './session-state';
import { englishTexts } from '../../../test/support/english-texts';
import { Session } from './session';
import type { FakeServer } from '../../../test/support/fake-server';
import { at, openSession, settle } from '../../../test/support/near-session';
import { putRules } from '../../core/rules/shape/stored-rule';

let server: FakeServer;
let session: Session;
let end: () => void;
const names = () => session.get().legend.map(({ rule }) => rule.name);

beforeEach(async () => {
  ({ session, server, end } = await openSession());
});
afterEach(() => end());

async function keepRule(name: string, column = 0): Promise<void> {
  session.select(at(column, 1));
  await session.rules.newRule('compare');
  session.rules.nameDraft(name);
  session.rules.keepDraft();
  session.rules.leaveBench();
  await settle();
}

describe('typing', () => {
  test('is entered when it is committed, and let go when it is not', async () => {
    session.select(at(1, 2));
    session.beginEdit('cell', 'a');
    session.type('ab');
    session.cancelEdit();
    session.commit();
    await settle();
    expect(server.received).toEqual([]);
    session.beginEdit('cell', 'ab');
    session.commit();
    await settle();
    expect(server.received[0]!.operations).toEqual([
      { kind: 'set-cells', cells: [{ row: 'r1', field: 'f2', input: 'ab' }] },
    ]);
    await vi.waitFor(() => expect(session.get().cell).toMatchObject({ input: 'ab', column: 1, position: 2 }));
  });

  test('typing over a cell wins over its old value, however late that arrives', async () => {
    session.select(at(0, 5));
    session.beginEdit('cell');
    session.beginEdit('cell', 'x');
    await settle();
    expect(session.get().editing?.text).toBe('x');
  });

  test('just after a line was asked for goes into that line, not over the cell', () => {
    expect(session.typeAhead('x')).toBe(false);
    session.openPanel('commands');
    expect([session.typeAhead('t'), session.typeAhead(null), session.typeAhead('o')]).toEqual([true, true, true]);
    expect(session.get()).toMatchObject({ ahead: 'to', editing: null });
    session.takeAhead();
    session.openPanel(null);
    expect([session.get().ahead, session.typeAhead('x')]).toEqual(['', false]);
  });

  test('over a cell that turns out to be locked ends, and says why', async () => {
    session.select(at(0, 5));
    await settle();
    const { cell } = session.get();
    session.select(at(1, 5));
    session.beginEdit('cell', 'mine');
    const known = { ...cell!, column: 1, position: 5, lock: 'Only to read.' };
    expect(
      stateAfter({ kind: 'cell-resolved', at: { column: 1, position: 5 }, cell: known }, session.get()),
    ).toMatchObject({ editing: null, message: 'Only to read.' });
    session.cancelEdit();
  });

  test('in a cell that is known begins at once with what it holds', async () => {
    session.select(at(0, 5));
    await settle();
    session.beginEdit('cell');
    expect(session.get().editing).toMatchObject({ text: '7', place: 'cell' });
  });
});

describe('a new rule', () => {
  test('reads the selected fields, takes its threshold from their values, and names itself', async () => {
    session.select({ anchor: { column: 0, position: 1 }, focus: { column: 1, position: 3 } });
    await session.rules.newRule('compare');
    const { rule } = session.get().bench!.draft;
    expect(rule.reads).toEqual({ fields: ['f1', 'f2'] });
    expect(rule.when).toMatchObject({ kind: 'compare', is: '<' });
    expect(rule.name).toMatch(/^One or Two is below [\d.]+$/);
    session.rules.nameDraft('Mine');
    session.rules.changeDraft({ ...session.get().bench!.draft.rule, when: { kind: 'compare', is: '>', to: 1 } });
    expect(session.get().bench!.draft.rule.name).toBe('Mine');
    session.rules.nameDraft('');
    expect(session.get().bench!.draft.rule.name).toBe('One or Two is above 1');
    await settle();
    expect(server.received).toEqual([]);
    session.rules.leaveBench();
    await settle();
    expect(names()).toEqual([]);
  });

  test('over texts suggests the most frequent text', async () => {
    server.elsewhere({
      kind: 'set-cells',
      cells: ['r0', 'r1', 'r2', 'r3', 'r4', 'r5', 'r6', 'r7', 'r8', 'r9'].map((row, n) => ({
        row,
        field: 'f3',
        input: n % 3 ? 'open' : 'done',
      })),
    });
    session.select(at(2, 1));
    await settle();
    await session.rules.newRule('compare');
    expect(session.get().bench!.draft.rule.when).toEqual({ kind: 'compare', is: '=', to: 'open' });
  });

  test('comes first, and is everybody’s once it is kept', async () => {
    await keepRule('First');
    await keepRule('Second');
    expect(names()).toEqual(['Second', 'First']);
    expect(server.received.map(({ operations }) => operations[0]!.kind)).toEqual(['put-rules', 'put-rules']);
  });
});

describe('kept rules', () => {
  beforeEach(async () => {
    for (const name of ['C', 'B', 'A']) await keepRule(name);
  });
  const entry = (name: string) => session.get().legend.find(({ rule }) => rule.name === name)!;

  test('are moved, duplicated, switched off and removed', async () => {
    session.rules.moveRule(entry('C').id, 0);
    await settle();
    expect(names()).toEqual(['C', 'A', 'B']);
    session.rules.moveRule(entry('C').id, 1);
    await settle();
    expect(names()).toEqual(['A', 'C', 'B']);
    session.rules.moveRule(entry('A').id, 2);
    await settle();
    expect(names()).toEqual(['C', 'B', 'A']);
    session.rules.moveRule(entry('A').id, 3);
    session.rules.duplicateRule(entry('B').id);
    await settle();
    expect(names()).toEqual(['C', 'B', 'B (copy)', 'A']);
    session.rules.changeRules([entry('B').id], { on: !entry('B').rule.on });
    session.rules.removeRules([entry('B (copy)').id]);
    await settle();
    expect(names()).toEqual(['C', 'B', 'A']);
    expect(entry('B')).toMatchObject({ rule: { on: false }, matched: 0 });
  });

  test('are opened with their cells lit and the first of them selected; a click on the sheet puts the light out', async () => {
    session.rules.openRule(entry('A').id);
    await settle();
    expect(session.get()).toMatchObject({
      spotlight: entry('A').id,
      bench: { kept: { rule: { name: 'A' } }, namesItself: false },
    });
    const { focus } = session.get().selection;
    expect(focus.position).toBeGreaterThan(0);
    expect(session.get().profile?.nearest).toHaveLength(1);
    session.select(at(2, 2));
    await settle();
    expect(session.get().spotlight).toBeNull();
    expect(session.get().bench).not.toBeNull();
  });

  test('on the bench follow what an undo or somebody else makes of them', async () => {
    const before = entry('A');
    session.rules.openRule(before.id);
    session.rules.nameDraft('A, renamed');
    session.rules.keepDraft();
    await settle();
    session.undo();
    await settle();
    expect(session.get().bench?.draft.rule.name).toBe('A');
    session.rules.nameDraft('half');
    server.elsewhere(putRules([{ id: before.id, key: before.key, rule: { ...before.rule, name: 'theirs' } }]));
    await settle();
    expect(session.get().bench?.draft.rule.name).toBe('half');
    session.rules.leaveBench();
    await settle();
    session.rules.openRule(before.id);
    server.elsewhere({ kind: 'remove-rules', rules: [before.id] });
    await settle();
    expect(session.get().bench).toBeNull();
  });

  test('are as they were when changes to them are not kept', async () => {
    const before = entry('A');
    session.rules.openRule(before.id);
    session.rules.changeDraft({ ...before.rule, when: { kind: 'compare', is: '>', to: -1e9 } });
    await settle();
    expect(entry('A').matched).not.toBe(before.matched);
    session.rules.leaveBench();
    await settle();
    expect(entry('A')).toEqual(before);
  });
});

test('rules that two people made at the same moment, with equal keys, can still be put in order', async () => {
  const rule = (id: string) => ({
    id,
    key: 'a0',
    rule: {
      id,
      name: id,
      on: true,
      settles: false,
      reads: { fields: ['f1'] },
      when: { kind: 'average' as const, is: 'above' as const },
      paints: 'cell' as const,
    },
  });
  server.elsewhere(putRules(['x', 'y', 'z'].map(rule)));
  await settle();
  expect(names()).toEqual(['x', 'y', 'z']);
  session.rules.moveRule('z', 1);
  session.rules.duplicateRule(session.get().legend[0]!.id);
  await settle();
  expect(names()).toHaveLength(4);
  session.rules.moveRule('z', 0);
  await settle();
  expect(names()[0]).toBe('z');
});

test('a sheet that cannot be opened says why', async () => {
  const other = new Session('gone', englishTexts('sheet'));
  const stop = other.start('light');
  await settle();
  expect(other.get().failure).toContain('does not exist');
  stop();
});

describe('while a formula is typed', () => {
  const text = () => session.get().editing?.text;

  test('cells that are pointed at go where a reference can stand, and nowhere else', async () => {
    session.select(at(2, 2));
    session.beginEdit('cell', '=');
    session.pointing.at({ column: 1, position: 4 }, false);
    expect(text()).toBe('=B5');
    session.pointing.at({ column: 0, position: 6 }, true);
    expect(text()).toBe('=A5:B7');
    session.pointing.at({ column: 0, position: 1 }, false);
    session.type('=A2', 3);
    expect([session.pointing.isOpen, session.pointing.step(1, 0, false)]).toEqual([false, false]);
    session.type('=A2+', 4);
    expect(session.pointing.step(0, 1, false)).toBe(true);
    expect(session.pointing.step(0, 1, true)).toBe(true);
    expect(text()).toBe('=A2+C4:C5');
    session.type('=SUM(;2)', 5);
    session.pointing.at({ column: 0, position: 0 }, false);
    expect(text()).toBe('=SUM(A1;2)');
    session.cancelEdit();
    await settle();
    expect(server.received).toEqual([]);
  });
});

test('a value that a field does not allow stays in the editor, or is reported when the editor is left', async () => {
  await session.actions.edit({ do: 'set-allowed', left: 0, right: 0, allowed: ['7', 'x'] });
  await settle();
  const sent = server.received.length;
  session.select(at(0, 2));
  await settle();
  session.beginEdit('cell', '8');
  expect(session.commit(true)).toBe(false);
  expect(session.get()).toMatchObject({
    editing: { text: '8' },
    message: expect.stringContaining('“8” is not one of the values of One') as string,
  });
  session.type('X');
  expect(session.commit(true)).toBe(true);
  session.beginEdit('cell', '9');
  expect(session.commit()).toBe(false);
  expect(session.get().editing).toBeNull();
  await settle();
  expect(server.received.slice(sent).map(({ operations }) => operations)).toEqual([
    [{ kind: 'set-cells', cells: [{ row: 'r1', field: 'f1', input: 'X' }] }],
  ]);
});

test('what is being typed goes along with its record while others move it', async () => {
  session.select(at(0, 2));
  await settle();
  session.beginEdit('cell', '44');
  server.elsewhere({ kind: 'insert-rows', rows: [{ id: 'new', key: 'Zz', role: 'record', cells: {} }] });
  await settle();
  expect(session.get()).toMatchObject({ selection: at(0, 3), editing: { column: 0, position: 3, text: '44' } });
  session.commit();
  await settle();
  expect(server.received.at(-1)!.operations).toEqual([
    { kind: 'set-cells', cells: [{ row: 'r1', field: 'f1', input: '44' }] },
  ]);
});
