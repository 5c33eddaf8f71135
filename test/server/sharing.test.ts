import { beforeEach, describe, expect, test } from 'vitest';
import { fillingOf, NO_FORMULAS, NOTHING_OPEN } from '../../src/core/sharing/filling';
import { OWN_ALL, SHEET_ROLES, type SheetRole, type LinkRole } from '../../src/core/sharing/role';
import { newField } from '../../src/core/sheet/field';
import type { Operation } from '../../src/core/sheet/change';
import type { LinkGives } from '../../src/protocol/sheet-sharing';
import { findAccess } from '../../src/server/access/find-access';
import { hashToken } from '../../src/server/people/token';
import { mayJudge } from '../../src/server/people/judge-limit';
import { giveToken } from '../../src/server/programs/give-token';
import { readFields } from '../../src/server/sql/field';
import { readParts } from '../../src/server/sql/part';
import { findProgram } from '../../src/server/sql/program';
import { findRuleSet, insertRuleSet } from '../../src/server/sql/rule-set';
import { createSheet } from '../../src/server/sheets/create-sheet';
import { acceptInvitation, joinByLink } from '../../src/server/sheets/join-sheet';
import { changeMember, invite, makeLinks, readSharing } from '../../src/server/sheets/share-sheet';
import { takeChange } from '../../src/server/sheets/take-change';
import { endLink, revokeLink } from '../../src/server/sql/link';
import { putMember } from '../../src/server/sql/member';
import { testDatabase, TESTER } from '../support/test-database';
import { peopleOf } from '../support/test-people';
import { putRules } from '../../src/core/rules/shape/stored-rule';

const { sql } = await testDatabase('sharing');
const FIELDS = ['name', 'day', 'depth', 'answer'].map((id, at) => newField(id, `a${at}`));
let sheet = '';
let made = 0;

const { account } = peopleOf(sql);
const tokenOf = (path: string) => path.slice(path.lastIndexOf('/') + 1);
const link = async (role: LinkRole, gives: LinkGives = { kind: 'all' }, endsAt: Date | null = null) => {
  const [one] = await makeLinks(sql, sheet, { by: TESTER, asked: [{ role, name: 'by hand', gives, endsAt }] });
  return { id: one!.id, token: tokenOf(one!.path) };
};
const come = async (token: string, name = 'Ilse') => (await joinByLink(sql, token, { name })).visit;
const ownOf = async (visit: string) => (await findAccess(sql, sheet, { session: undefined, visit }))?.own;
const change = (operation: Operation) => ({ id: `change ${++made}`, operations: [operation] });
const set = (row: string, field: string, input: string): Operation => ({
  kind: 'set-cells',
  cells: [{ row, field, input }],
});

beforeEach(async () => {
  const row = (id: string, role: 'header' | 'record' | 'total', at: number) => ({
    id,
    key: `a${at}`,
    role,
    cells: { name: id },
  });
  sheet = await createSheet(sql, {
    name: 'Soundings',
    fields: FIELDS,
    rows: [row('head', 'header', 0), row('one', 'record', 1), row('two', 'record', 2), row('sum', 'total', 3)],
    rules: [],
    parts: [{ ...NOTHING_OPEN, open: ['day', 'depth'], openCells: [{ row: 'sum', field: 'answer' }], kept: ['name'] }],
  });
});

describe('a link', () => {
  test('gives who comes the next field that is open and nobody has, whoever comes at the same moment', async () => {
    const { token } = await link('filler', { kind: 'next-field' });
    const visits = await Promise.all([come(token), come(token)]);
    const fields = await Promise.all(visits.map(async (visit) => (await ownOf(visit))!.fields));
    expect(fields.flat().sort()).toEqual(['day', 'depth']);
    await expect(come(token)).rejects.toThrow('All places on this sheet are taken');
  });

  test('gives each the next record: a total only where a cell of it is open', async () => {
    const { token } = await link('filler', { kind: 'next-row' });
    const rows: (readonly string[] | null)[] = [];
    for (let at = 0; at < 3; at++) rows.push((await ownOf(await come(token)))!.rows);
    expect(rows).toEqual([['one'], ['two'], ['sum']]);
    await expect(come(token)).rejects.toMatchObject({ code: 'not-allowed' });
  });

  test('gives one browser one place, however often it comes', async () => {
    const { token } = await link('filler', { kind: 'next-row' });
    const visit = await come(token);
    const again = await joinByLink(sql, token, { name: 'Ilse', visitOf: () => Promise.resolve(visit) });
    expect(again.visit).toBe(visit);
    // A visit by another link, or a token that is none, is no place of this one.
    const other = await come((await link('filler', { kind: 'next-row' })).token);
    for (const none of [other, 'made up']) {
      const fresh = await joinByLink(sql, token, { name: 'Ilse', visitOf: () => Promise.resolve(none) }).catch(
        (error: Error) => error.message,
      );
      expect(fresh).not.toMatchObject({ visit: none });
    }
  });

  test('that is taken back frees the places that it gave; one that has ended keeps them', async () => {
    const first = await link('filler', { kind: 'next-field' });
    await come(first.token);
    await endLink(sql, sheet, { id: first.id, endsAt: new Date(Date.now() - 1000) });
    const second = await link('filler', { kind: 'next-field' });
    expect((await ownOf(await come(second.token)))!.fields).toEqual(['depth']);
    await revokeLink(sql, sheet, first.id);
    expect((await ownOf(await come(second.token)))!.fields).toEqual(['day']);
  });

  test('lets nobody in once it has ended or is revoked, nor those who came by it, all with the same error', async () => {
    const { id, token } = await link('viewer', { kind: 'all' }, new Date(Date.now() + 60_000));
    const visit = await come(token);
    expect(await findAccess(sql, sheet, { session: undefined, visit })).toMatchObject({
      role: 'viewer',
      name: 'Ilse',
      person: undefined,
    });
    await endLink(sql, sheet, { id, endsAt: new Date(Date.now() - 1) });
    expect(await findAccess(sql, sheet, { session: undefined, visit })).toBeUndefined();
    const ended = await come(token).catch((error: Error) => error.message);
    await endLink(sql, sheet, { id, endsAt: null });
    expect(await findAccess(sql, sheet, { session: undefined, visit })).toMatchObject({ role: 'viewer' });
    await revokeLink(sql, sheet, id);
    expect(await findAccess(sql, sheet, { session: undefined, visit })).toBeUndefined();
    expect(await come(token).catch((error: Error) => error.message)).toBe(ended);
    expect(await come('never made').catch((error: Error) => error.message)).toBe(ended);
  });

  test('is no way into another sheet', async () => {
    const visit = await come((await link('filler')).token);
    const other = await createSheet(sql, { name: 'Other', fields: FIELDS, rows: [], rules: [] });
    expect(await findAccess(sql, other, { session: undefined, visit })).toBeUndefined();
  });

  test('keeps a key that is made after it from fillers, and a hidden field that an editor shows', async () => {
    const kept = async () => fillingOf(await readParts(sql, sheet, ['filling'])).kept;
    const when = { kind: 'key' as const, expect: { field: 'answer' }, looks: {} };
    const rule = {
      id: 'late',
      name: 'Late',
      on: true,
      settles: false,
      reads: { fields: ['day'] },
      when,
      paints: 'cell' as const,
    };
    const put = change(putRules([{ id: 'late', key: 'a0', rule }]));
    await takeChange(sql, { sheet, by: TESTER, change: put });
    // While there are no fillers, there is nobody to hide it from.
    expect(await kept()).toEqual(['name']);
    await link('filler');
    expect(await kept()).toEqual(['name', 'answer']);
    const editor = { ...TESTER, role: 'editor' as const };
    const shape = (id: string, hidden: boolean): Operation => ({
      kind: 'put-fields',
      fields: [{ ...FIELDS.find((field) => field.id === id)!, ...(hidden ? { hidden } : {}) }],
    });
    await takeChange(sql, { sheet, by: editor, change: change(shape('depth', true)) });
    await takeChange(sql, { sheet, by: editor, change: change(shape('depth', false)) });
    await takeChange(sql, { sheet, by: editor, change: change({ kind: 'remove-rules', rules: ['late'] }) });
    expect(await kept()).toEqual(['name', 'answer', 'depth']);
  });

  test('keeps the answers of a key from fillers from then on, also when its rule goes', async () => {
    const when = {
      kind: 'key' as const,
      expect: { field: 'answer' },
      looks: { right: { fill: '#00aa00' }, wrong: null, empty: null },
    };
    const rule = {
      id: 'k',
      name: 'K',
      on: true,
      settles: false,
      reads: { fields: ['day'] },
      when,
      paints: 'cell' as const,
    };
    await takeChange(sql, { sheet, by: TESTER, change: change(putRules([{ id: 'k', key: 'a0', rule }])) });
    const { token } = await link('filler');
    await takeChange(sql, { sheet, by: TESTER, change: change({ kind: 'remove-rules', rules: ['k'] }) });
    const by = (await findAccess(sql, sheet, { session: undefined, visit: await come(token) }))!;
    await expect(takeChange(sql, { sheet, by, change: change(set('sum', 'answer', '5')) })).rejects.toMatchObject({
      code: 'locked',
    });
    await takeChange(sql, { sheet, by, change: change(set('one', 'day', '5')) });
  });
});

describe('an invitation', () => {
  const invited = async (role: LinkRole, email: string) => {
    const { person: from } = await account('Mara');
    return tokenOf((await invite(sql, sheet, { from, email, role, origin: 'http://127.0.0.1:1' })).path);
  };

  test('works once, for an account, and never gives less than one had', async () => {
    const [odo, late] = [await account('Odo'), await account('Late')];
    const token = await invited('editor', odo.person.email.toUpperCase());
    await expect(joinByLink(sql, token, { name: 'Odo' })).rejects.toMatchObject({ code: 'sign-in' });
    // It is good for the address that it was sent to alone.
    await expect(acceptInvitation(sql, token, late.person)).rejects.toMatchObject({ code: 'not-allowed' });
    expect(await acceptInvitation(sql, token, odo.person)).toBe(sheet);
    expect(await findAccess(sql, sheet, { session: odo.session, visit: undefined })).toMatchObject({
      role: 'editor',
      own: OWN_ALL,
    });
    await expect(acceptInvitation(sql, token, odo.person)).rejects.toMatchObject({ code: 'no-sheet' });
    await acceptInvitation(sql, await invited('viewer', odo.person.email), odo.person);
    expect(await findAccess(sql, sheet, { session: odo.session, visit: undefined })).toMatchObject({ role: 'editor' });
  });

  test('that is taken up twice at the same moment works once', async () => {
    const { person } = await account('A');
    const token = await invited('editor', person.email);
    const outcomes = await Promise.allSettled([person, person].map((one) => acceptInvitation(sql, token, one)));
    expect(outcomes.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  });

  test('is in the outbox of its sender, and nothing that would let in is kept of it', async () => {
    const token = await invited('filler', 'odo@wrenfold.example');
    const [mail] = await sql<{ body: string }[]>`select body from outbox_mail order by id desc limit 1`;
    expect(mail!.body).toContain('Soundings');
    expect(mail!.body).not.toContain(token);
    const links = await sql`select * from sheet_link where sheet_id = ${sheet}`;
    expect(JSON.stringify(links)).not.toContain(token);
  });
});

test('of two ways in the one that may do more counts', async () => {
  const { session, person } = await account('Odo');
  const visit = await come((await link('filler')).token, 'Odo on the boat');
  for (const [role, counts] of [
    ['viewer', 'filler'],
    ['filler', 'filler'],
    ['editor', 'editor'],
    ['owner', 'owner'],
  ] as const) {
    await putMember(sql, sheet, { person: person.id, role });
    const found = await findAccess(sql, sheet, { session, visit });
    expect(found!.role).toBe(counts);
    expect(found!.name).toBe(role === 'viewer' ? 'Odo on the boat' : 'Odo');
  }
});

test('a sheet keeps an owner, also when two take it from one another at the same moment', async () => {
  const [a, b] = [await account('A'), await account('B')];
  for (const { person } of [a, b]) await putMember(sql, sheet, { person: person.id, role: 'owner' });
  const outcomes = await Promise.allSettled(
    [a, b].map(({ person }) => changeMember(sql, sheet, { person: person.id, role: 'viewer' })),
  );
  expect(outcomes.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  const { members } = await readSharing(sql, sheet);
  expect(members.map(({ role }) => role)).toEqual(['owner', 'viewer']);
  await expect(changeMember(sql, sheet, { person: members[0]!.id, role: null })).rejects.toThrow(
    'keeps at least one owner',
  );
  await changeMember(sql, sheet, { person: members[1]!.id, role: null });
  await expect(changeMember(sql, sheet, { person: members[1]!.id, role: 'editor' })).rejects.toMatchObject({
    code: 'bad-request',
  });
});

describe('who may change what, as docs/sharing.md has it', () => {
  const filling = { kind: 'put-parts' as const, parts: [{ ...NOTHING_OPEN, open: ['name'] }] };
  const changes: Record<string, Operation> = {
    'an open cell': set('one', 'day', '3'),
    'a single open cell': set('sum', 'answer', '3'),
    'a formula in an open cell': set('one', 'day', '=A1'),
    'a cell that is not open': set('one', 'answer', '3'),
    'a header over an open field': set('head', 'day', 'Other'),
    'a field that is kept': set('one', 'name', '3'),
    'a row that is not there': set('gone', 'day', '3'),
    'a new row': { kind: 'insert-rows', rows: [{ id: 'new', key: 'b', role: 'record', cells: {} }] },
    'a row removed': { kind: 'remove-rows', rows: ['two'] },
    'a row’s place': { kind: 'change-rows', rows: [{ id: 'two', key: 'a05' }] },
    'a style': { kind: 'set-styles', cells: [{ row: 'one', field: 'day', style: { bold: true } }] },
    'a field’s width': { kind: 'put-fields', fields: [{ ...FIELDS[1]!, format: '0.0' }] },
    'a field removed': { kind: 'remove-fields', fields: ['answer'] },
    'a rule removed': { kind: 'remove-rules', rules: ['k'] },
    'shaded records': { kind: 'put-parts', parts: [{ id: 'bands', kind: 'bands' }] },
    'what fillers may': filling,
    'what fillers may, given up': { kind: 'remove-parts', parts: ['filling'] },
  };
  const TYPED = ['an open cell', 'a single open cell'];
  const OWNED = ['what fillers may', 'what fillers may, given up'];
  const may = (role: SheetRole, what: string): boolean => {
    if (role === 'owner') return true;
    return role === 'editor' ? !OWNED.includes(what) : role === 'filler' && TYPED.includes(what);
  };

  test.each(SHEET_ROLES.flatMap((role) => Object.keys(changes).map((what) => [role, what] as const)))(
    '%s: %s',
    async (role, what) => {
      const taken = takeChange(sql, {
        sheet,
        by: { author: 'test', role, own: OWN_ALL },
        change: change(changes[what]!),
      }).catch((error) => error);
      const outcome: unknown = await taken;
      // Who may is only hindered by what is not there.
      const isDone = may(role, what) && what !== 'a row that is not there';
      if (isDone) expect(outcome).toBe(1);
      else
        expect(outcome).toMatchObject({
          code: may(role, what) ? 'row-gone' : role === 'editor' ? 'not-allowed' : 'locked',
        });
      if (role === 'filler' && what.startsWith('a formula')) expect(outcome).toMatchObject({ message: NO_FORMULAS });
      const [{ count }] = (await sql`select count(*)::int from sheet_change where sheet_id = ${sheet}`) as unknown as [
        { count: number },
      ];
      expect(count).toBe(isDone ? 1 : 0);
    },
  );

  test('a filler types into their own alone, and all of a change or nothing', async () => {
    const by = { author: 'test', role: 'filler', own: { fields: ['day'], rows: ['one'] } } as const;
    const take = (...operations: Operation[]) =>
      takeChange(sql, { sheet, by, change: { id: `change ${++made}`, operations } });
    await take(set('one', 'day', 'mine'));
    for (const other of [set('two', 'day', 'x'), set('one', 'depth', 'x'), set('sum', 'answer', 'x')])
      await expect(take(set('one', 'day', 'again'), other)).rejects.toThrow('for somebody else to fill in');
    const [row] = await sql<
      { cells: Record<string, string> }[]
    >`select cells from sheet_row where sheet_id = ${sheet} and id = 'one'`;
    expect(row!.cells.day).toBe('mine');
  });

  test('of allowed values a filler gives one', async () => {
    await takeChange(sql, {
      sheet,
      by: TESTER,
      change: change({ kind: 'put-fields', fields: [{ ...FIELDS[1]!, allowed: ['ebb', 'flood'] }] }),
    });
    const by = { author: 'test', role: 'filler', own: OWN_ALL } as const;
    await expect(takeChange(sql, { sheet, by, change: change(set('one', 'day', 'slack')) })).rejects.toThrow(
      'Choose one of: ebb, flood.',
    );
    await takeChange(sql, { sheet, by, change: change(set('one', 'day', 'ebb')) });
  });
});

describe('a rule set', () => {
  const body = { rules: [], looks: {} } as never;
  const used = (set: string): Operation => ({
    kind: 'put-parts',
    parts: [{ id: 'use', kind: 'rule-set', set, name: 'Weirs', version: 1, rules: {} }],
  });

  test('is read by its owner, and in a sheet on which its owner works; its name alone opens it to nobody', async () => {
    const [{ person: owner }, { person: other }] = [await account('Odo'), await account('Ilse')];
    await insertRuleSet(sql, { id: 'weirs', owner: owner.id, name: 'Weirs', body });
    const sees = async (person: string, at: string) =>
      (await findRuleSet(sql, { id: 'weirs', person, sheet: at })) !== undefined;
    const theirs = await createSheet(sql, { name: 'Own', fields: FIELDS, rows: [], rules: [], owner: other.id });
    await takeChange(sql, { sheet: theirs, by: TESTER, change: change(used('weirs')) });
    expect([await sees(owner.id, theirs), await sees(other.id, theirs)]).toEqual([true, false]);
    await putMember(sql, theirs, { person: owner.id, role: 'editor' });
    expect(await sees(other.id, theirs)).toBe(true);
  });
});

describe('a program', () => {
  test('ends with its day, and with the right of who let it in', async () => {
    const [{ person: owner }, { person: other }] = [await account('Odo'), await account('Ilse')];
    for (const { id } of [owner, other]) await putMember(sql, sheet, { person: id, role: 'owner' });
    const { token, endsAt } = await giveToken(sql, sheet, {
      name: 'Logger',
      scopes: ['read'],
      person: owner.id,
      days: 30,
    });
    expect(Math.round((endsAt! - Date.now()) / 86_400_000)).toBe(30);
    const found = async () => (await findProgram(sql, hashToken(token))) !== undefined;
    expect(await found()).toBe(true);
    await changeMember(sql, sheet, { person: owner.id, role: 'editor' });
    expect(await found()).toBe(false);
    await changeMember(sql, sheet, { person: owner.id, role: 'owner' });
    expect(await found()).toBe(true);
    await sql`update sheet_program set ends_at = now() - interval '1 second'`;
    expect(await found()).toBe(false);
  });
});

describe('judging while one types', () => {
  test('is limited by who types and where: guessing at a short answer comes to an end, typing does not', async () => {
    const tries = (author: string, row: string, count: number) =>
      Promise.all(Array.from({ length: count }, () => mayJudge(author, 's', { row, field: 'f' })));
    expect((await tries('visitor v', 'r1', 332)).filter(Boolean)).toHaveLength(40);
    expect((await tries('visitor v', 'r2', 10)).every(Boolean)).toBe(true);
    expect((await tries('visitor w', 'r1', 10)).every(Boolean)).toBe(true);
  });
});

describe('what a sheet may hold', () => {
  test('is what a file may: fields that are too many are refused, and nothing of the change is kept', async () => {
    const many = Array.from({ length: 1000 }, (_, at) => newField(`more${at}`, `b${String(at).padStart(4, '0')}`));
    await expect(
      takeChange(sql, { sheet, by: TESTER, change: change({ kind: 'put-fields', fields: many }) }),
    ).rejects.toThrow('at most 1,000 fields');
    expect((await readFields(sql, sheet)).length).toBe(FIELDS.length);
  });

  test('of what a filler enters at once, there is far less room', async () => {
    const by = { author: 'visitor v', role: 'filler', own: OWN_ALL } as const;
    await expect(takeChange(sql, { sheet, by, change: change(set('one', 'day', 'x'.repeat(4001))) })).rejects.toThrow(
      'at most 4,000 characters',
    );
    const cells = Array.from({ length: 2001 }, () => ({ row: 'one', field: 'day', input: 'x' }));
    await expect(takeChange(sql, { sheet, by, change: change({ kind: 'set-cells', cells }) })).rejects.toThrow(
      'At most 2,000 entries',
    );
  });
});
