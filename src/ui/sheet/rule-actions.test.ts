import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { RuleIdea } from '../../core/rules/shape/rule-idea';
import type { Session } from './session';
import type { FakeServer } from '../../../test/support/fake-server';
import { at, openSession, settle } from '../../../test/support/near-session';

let server: FakeServer;
let session: Session;
let end: () => void;
beforeEach(async () => {
  ({ session, server, end } = await openSession());
});
afterEach(() => end());

const below = (to: number, field = 'f1'): RuleIdea => ({
  reads: { fields: [field] },
  when: { kind: 'compare', is: '<', to },
  paints: 'cell',
  settles: false,
  look: { look: 'alarm' },
});
const entry = (name: string) => session.get().legend.find(({ rule }) => rule.name === name)!;
const names = () => session.get().legend.map(({ rule }) => rule.name);

async function keep(name: string, idea: RuleIdea): Promise<void> {
  session.rules.begin(idea);
  if (name) session.rules.nameDraft(name);
  session.rules.keepDraft();
  session.rules.leaveBench();
  await settle();
}

describe('beginning rules', () => {
  test('a sibling comes after its rule, over the same cells, with the next look, and is kept apart', async () => {
    session.rules.begin(below(5));
    session.rules.keepAndGoOn();
    await settle();
    const { draft, kept } = session.get().bench!;
    expect(kept).toBeNull();
    expect(draft.rule).toMatchObject({ reads: { fields: ['f1'] }, when: { to: 5 }, look: { look: 'watch' } });
    expect(session.get().legend.map(({ isDraft }) => isDraft)).toEqual([false, true]);
    session.rules.changeDraft({ ...draft.rule, when: { kind: 'compare', is: '<', to: 8 } });
    session.rules.keepDraft();
    await settle();
    expect(names()).toEqual(['One is below 5', 'One is below 8']);
    expect(server.received).toHaveLength(2);
  });

  test('a formula begins with the first cell of the field, thresholds with round numbers', async () => {
    session.select(at(1, 3));
    await session.rules.newRule('formula');
    expect(session.get().bench!.draft.rule.when).toMatchObject({ formula: expect.stringMatching(/^=B2/) as string });
    session.select(at(0, 3));
    const { profile } = (await session.rules.profileEach(['f1']))[0]!.profile;
    for (const threshold of [profile.lowerQuartile, profile.upperQuartile]) expect(threshold % 500).toBe(0);
  });

  test('what is dragged is shown together with the sheet, at the latest after a moment', async () => {
    session.rules.begin(below(5));
    await settle();
    const seen: unknown[] = [];
    session.subscribe(() => seen.push(session.get().legend.find(({ isDraft }) => isDraft)?.matched));
    const { rule } = session.get().bench!.draft;
    session.rules.dragDraft({ ...rule, when: { kind: 'compare', is: '<', to: 7 } });
    expect(seen).toEqual([]);
    await settle();
    // 5, 4.9, 70 %, -5 and 6 of the first field are below 7, and no count before that one was shown.
    expect(new Set(seen)).toEqual(new Set([5]));
  });

  test('the counts of the last place that a threshold was dragged to are shown in the end', async () => {
    session.rules.begin(below(5));
    await settle();
    const { rule } = session.get().bench!.draft;
    for (const to of [6, 6.5, 7]) {
      session.rules.dragDraft({ ...rule, when: { kind: 'compare', is: '<', to } });
      await settle();
    }
    const matched = () => session.get().legend.find(({ isDraft }) => isDraft)?.matched;
    await vi.waitFor(() => expect(matched()).toBe(5));
  });

  test('counts that waited while it was dragged do not come after newer ones', async () => {
    session.rules.begin(below(5));
    await settle();
    session.rules.keepDraft();
    await settle();
    const kept = session.get().legend.map(({ matched }) => matched);
    const { rule } = session.get().bench!.draft;
    for (const to of [6, 7]) session.rules.dragDraft({ ...rule, when: { kind: 'compare', is: '<', to } });
    await settle();
    session.rules.leaveBench();
    await settle();
    // Longer than counts wait.
    await new Promise((resolve) => setTimeout(resolve, 200));
    expect(session.get().legend.map(({ matched }) => matched)).toEqual(kept);
  });
});

describe('a rule that is not kept', () => {
  const drafts = () => session.get().drafts.map(({ draft }) => draft.rule.name);

  test('is a draft once another is begun or the bench is left, and is taken up as it was', async () => {
    session.rules.begin(below(5));
    session.rules.nameDraft('First');
    session.rules.begin(below(8));
    expect(drafts()).toEqual(['First']);
    session.rules.putAside();
    await settle();
    expect([drafts(), names()]).toEqual([['One is below 8', 'First'], []]);
    const first = session.get().drafts[1]!;
    session.rules.takeUp(first.draft.id);
    await settle();
    expect([drafts(), names(), session.get().bench]).toEqual([['One is below 8'], ['First'], first]);
    session.rules.keepDraft();
    session.rules.putAside();
    expect(drafts()).toEqual(['One is below 8']);
    session.rules.discardDrafts();
    expect(drafts()).toEqual([]);
  });

  test('changes of a kept rule are a draft too; what is discarded by name is none', async () => {
    await keep('Low', below(5));
    session.rules.openRule(entry('Low').id);
    session.rules.changeDraft({ ...entry('Low').rule, name: 'Lower' });
    session.rules.putAside();
    await settle();
    expect([drafts(), names()]).toEqual([['Lower'], ['Low']]);
    session.rules.takeUp(entry('Low').id);
    session.rules.leaveBench();
    await settle();
    expect([drafts(), names()]).toEqual([[], ['Low']]);
  });

  test('is on the bench again where the server refuses it, with the reason', async () => {
    session.rules.begin(below(5));
    server.answers.push(409);
    session.rules.keepDraft();
    await settle();
    expect(session.get()).toMatchObject({
      message: 'answered with 409',
      bench: { kept: null, draft: { rule: below(5) } },
    });
    expect(session.get().legend).toMatchObject([{ isDraft: true }]);
    session.rules.keepDraft();
    await settle();
    expect(session.get().legend).toMatchObject([{ isDraft: false }]);
  });

  test('is a draft where the bench was left before the server refused it', async () => {
    await keep('Low', below(5));
    session.rules.openRule(entry('Low').id);
    session.rules.changeDraft({ ...entry('Low').rule, name: 'Lower' });
    server.answers.push(409);
    session.rules.keepDraft();
    session.rules.leaveBench();
    await settle();
    expect([drafts(), names()]).toEqual([['Lower'], ['Low']]);
    session.rules.takeUp(entry('Low').id);
    expect(session.get().bench).toMatchObject({ draft: { rule: { name: 'Lower' } }, kept: { rule: { name: 'Low' } } });
  });
});

describe('several rules', () => {
  beforeEach(async () => {
    await keep('Low', below(5));
    await keep('', below(8, 'f2'));
  });
  const other = 'Two is below 8';

  test('are changed as one change, and are back by one undo', async () => {
    session.rules.toggleChosen(entry('Low').id);
    session.rules.toggleChosen(entry(other).id);
    session.rules.changeRules(session.get().chosen, { look: { look: 'plum' } });
    await settle();
    expect(session.get().legend.map(({ rule }) => rule.look)).toEqual([{ look: 'plum' }, { look: 'plum' }]);
    expect(server.received.at(-1)!.operations).toHaveLength(1);
    session.undo();
    await settle();
    expect(session.get().legend.map(({ rule }) => rule.look)).toEqual([{ look: 'alarm' }, { look: 'alarm' }]);
    session.rules.toggleChosen(entry('Low').id);
    expect(session.get().chosen).toEqual([entry(other).id]);
    session.rules.chooseRules([]);
    expect(session.get().chosen).toEqual([]);
  });

  test('are carried to the selected field, next to where they were; one with a name of its own says where it is now', async () => {
    session.select(at(2, 4));
    session.rules.carryToSelection([entry('Low').id, entry(other).id]);
    await settle();
    expect(names()).toEqual([other, 'Three is below 8', 'Low', 'Low (Three)']);
    for (const name of ['Three is below 8', 'Low (Three)']) expect(entry(name).rule.reads).toEqual({ fields: ['f3'] });
    expect(new Set(session.get().legend.map(({ id }) => id)).size).toBe(4);
  });

  test('read the selected cells instead, fields for fields', async () => {
    session.select({ anchor: { column: 1, position: 2 }, focus: { column: 2, position: 2 } });
    session.rules.reachSelection([entry('Low').id]);
    await settle();
    expect(entry('Low').rule).toMatchObject({ reads: { fields: ['f2', 'f3'] }, when: { to: 5 } });
  });

  test('read the selected cells instead, but not one that is being changed on the bench', async () => {
    session.rules.openRule(entry('Low').id);
    await settle();
    session.rules.changeDraft({ ...entry('Low').rule, when: { kind: 'compare', is: '<', to: 1 } });
    await settle();
    const before = server.received.length;
    session.select(at(2, 2));
    session.rules.reachSelection([entry('Low').id, entry(other).id]);
    await settle();
    const operations = server.received.slice(before).flatMap((change) => change.operations);
    expect(operations).toMatchObject([{ kind: 'put-rules', rules: [{ id: entry(other).id }] }]);
  });

  test('read other fields by name; those over certain cells keep them, and roles of rows stay', async () => {
    await keep('All', { ...below(5), reads: { fields: ['f1'], roles: ['record', 'total'] } });
    await keep('Some', { ...below(5), reads: { cells: 'A2:A4' } });
    session.rules.readFields([entry('All').id, entry('Some').id], ['f2', 'f3']);
    await settle();
    expect(entry('All').rule.reads).toEqual({ fields: ['f2', 'f3'], roles: ['record', 'total'] });
    expect(entry('Some').rule.reads).toEqual({ cells: 'A2:A4' });
  });

  test('on the selection are removed, and the bench with them', async () => {
    session.rules.openRule(entry('Low').id);
    await settle();
    session.select(at(0, 4));
    await session.rules.removeTouching();
    await settle();
    expect(names()).toEqual([other]);
    expect(session.get().bench).toBeNull();
    session.rules.removeRules([entry(other).id, 'gone']);
    await settle();
    expect(names()).toEqual([]);
    session.undo();
    session.undo();
    await settle();
    expect(names()).toEqual([other, 'Low']);
  });

  test('that certain cells are read by is carried cell for cell', async () => {
    await keep('Some', {
      ...below(5),
      reads: { cells: 'A2:A4' },
      when: { kind: 'formula', formula: '=A2>$C$1', at: 'A2' },
    });
    session.select({ anchor: { column: 1, position: 4 }, focus: { column: 1, position: 6 } });
    session.rules.carryToSelection([entry('Some').id]);
    await settle();
    expect(entry('Some (B5:B7)').rule).toMatchObject({
      reads: { cells: 'B5:B7' },
      when: { formula: '=B5>$C$1', at: 'B5' },
    });
  });
});

test('a long change that is stopped says so, and leaves nothing behind', async () => {
  const table = Array.from({ length: 9_000 }, (_, row) => `${row}\t${row}`).join('\n');
  const pasted = session.actions.paste({ token: null, table }, 'all');
  await new Promise((resolve) => setTimeout(resolve, 1));
  session.stop();
  await pasted;
  await settle();
  expect(session.get()).toMatchObject({
    message: 'Stopped. The sheet is as it was.',
    isBusy: false,
    pasted: null,
    undo: null,
  });
  expect(session.get().frame!.rowCount).toBe(11);
  expect(server.received).toEqual([]);
});
