import type * as Crypto from 'node:crypto';
import { expect, test, vi } from 'vitest';
import { changePassword, checkSignIn, signOutEverywhere, signUp } from '../../src/server/people/accounts';
import type { Guesser } from '../../src/server/people/guesses';
import { personOfToken } from '../../src/server/people/session';
import { hashToken } from '../../src/server/people/token';
import type { Refusal } from '../../src/server/refusal';
import { findPerson } from '../../src/server/sql/person';
import { deleteOwnSession, readSessions } from '../../src/server/sql/session';
import { testDatabase } from '../support/test-database';
import { BY, peopleOf } from '../support/test-people';

// A hash takes 60 ms on purpose, and hundreds are made here. Its own tests make them at their full cost.
vi.mock('node:crypto', async (load) => {
  const crypto = await load<typeof Crypto>();
  const scrypt = (...[password, salt, length, , done]: Parameters<typeof crypto.scrypt>) =>
    crypto.scrypt(password, salt, length, { N: 16 }, done);
  return { ...crypto, default: crypto, scrypt };
});

const { sql } = await testDatabase('sign_in');
const { account, sessionOf } = peopleOf(sql);

const enter = (email: string, password: string, by: Guesser = BY) => checkSignIn(sql, { email, password }, by);
const failing = (email: string, password: string, by: Guesser = BY) =>
  enter(email, password, by).catch((error: Error) => error.message);
const from = (at: number): Guesser => ({ client: `198.51.100.${at}`, device: undefined });

test('a wrong address and a wrong password give the same error, and after ten failures one has to wait, however the address is spelled', async () => {
  const { person } = await account('Odo');
  expect(await failing('nobody@wrenfold.example', 'marigold ferry')).toBe(
    await failing(person.email, 'wrong password'),
  );
  for (let at = 1; at < 10; at++) await failing(at % 2 ? person.email.toUpperCase() : person.email, 'wrong password');
  await expect(enter(person.email, 'marigold ferry')).rejects.toMatchObject({ code: 'too-often' });
  await sql`update guess set ends_at = now() - interval '1 second'`;
  expect(await enter(person.email, 'marigold ferry')).toMatchObject({ id: person.id });
});

test('guesses side by side are all counted', async () => {
  const { person } = await account('Odo');
  const tried = await Promise.all(
    Array.from({ length: 25 }, (_, at) =>
      enter(person.email, `guess ${at}`, from(1)).catch((error: Refusal) => error.code),
    ),
  );
  expect(tried.filter((code) => code === 'bad-request')).toHaveLength(10);
  expect(tried.filter((code) => code === 'too-often')).toHaveLength(15);
});

test('strangers do not shut the owner out: another client gets in, more slowly, and a browser that is known always', async () => {
  const { person } = await account('Odo');
  const known = { client: '203.0.113.9', device: 'a device token' };
  await sessionOf(person.id, known);
  await sql`insert into guess (key, count, ends_at) values (${hashToken(`at person ${person.id}`)}, 12, now() + interval '10 minutes')`;
  expect(await enter(person.email, 'marigold ferry', from(2))).toMatchObject({ id: person.id });
  await sql`update guess set count = 500 where key = ${hashToken(`at person ${person.id}`)}`;
  await expect(enter(person.email, 'marigold ferry', from(3))).rejects.toMatchObject({ code: 'too-often' });
  expect(await enter(person.email, 'marigold ferry', known)).toMatchObject({ id: person.id });
  // A token of somebody else's browser is none of this person's.
  const { person: other } = await account('Ilse');
  await sessionOf(other.id, { ...known, device: 'another token' });
  await expect(enter(person.email, 'marigold ferry', { ...known, device: 'another token' })).rejects.toMatchObject({
    code: 'too-often',
  });
});

test('one client that guesses at many accounts has to wait as well', async () => {
  const by = from(4);
  for (let at = 0; at < 60; at++) await failing(`somebody${at}@wrenfold.example`, 'wrong password', by);
  await expect(enter('another@wrenfold.example', 'wrong password', by)).rejects.toMatchObject({ code: 'too-often' });
});

test('the present password is guessed at no more often than any', async () => {
  const { person } = await account('Odo');
  const change = (old: string) => changePassword(sql, person, { old, password: 'another ferry', by: BY });
  for (let at = 0; at < 10; at++) await expect(change(`guess ${at}`)).rejects.toThrow('Nothing was changed');
  await expect(change('marigold ferry')).rejects.toMatchObject({ code: 'too-often' });
});

test('another password ends every session', async () => {
  const { session, person } = await account('Odo');
  await expect(changePassword(sql, person, { old: 'not this one', password: 'another ferry', by: BY })).rejects.toThrow(
    'Nothing was changed',
  );
  expect(await personOfToken(sql, session)).toMatchObject({ id: person.id });
  await changePassword(sql, person, { old: 'marigold ferry', password: 'another ferry', by: BY });
  expect(await personOfToken(sql, session)).toBeUndefined();
  const again = await sessionOf(person.id);
  await signOutEverywhere(sql, person);
  expect(await personOfToken(sql, again)).toBeUndefined();
  await expect(enter(person.email, 'marigold ferry')).rejects.toMatchObject({ code: 'bad-request' });
});

test('signing in anew ends the session that the browser had; one’s sessions are listed, and ended one by one', async () => {
  const { session, person } = await account('Odo');
  const other = await sessionOf(person.id, { client: '192.0.2.8', agent: 'Another browser' });
  const anew = await sessionOf(person.id, { session });
  expect(await personOfToken(sql, session)).toBeUndefined();
  const listed = await readSessions(sql, person.id, hashToken(anew));
  expect(listed.map(({ isOwn }) => isOwn).sort()).toEqual([false, true]);
  expect(listed.find(({ isOwn }) => !isOwn)).toMatchObject({ client: '192.0.2.8', agent: 'Another browser' });
  const { person: stranger } = await account('Ilse');
  const { id } = listed.find(({ isOwn }) => !isOwn)!;
  expect(await deleteOwnSession(sql, stranger.id, id)).toBe(false);
  expect(await deleteOwnSession(sql, person.id, id)).toBe(true);
  expect(await personOfToken(sql, other)).toBeUndefined();
  expect(await personOfToken(sql, anew)).toMatchObject({ id: person.id });
});

test('an address has one account, however it is written, and nobody learns of it; a session that is over is nobody’s', async () => {
  const { session, person } = await account('Odo');
  expect(await signUp(sql, { email: person.email.toUpperCase(), name: 'Twice', password: 'a ferry of my own' })).toBe(
    await signUp(sql, { email: 'new@wrenfold.example', name: 'New', password: 'a ferry of my own' }),
  );
  await expect(enter(person.email, 'a ferry of my own')).rejects.toMatchObject({ code: 'bad-request' });
  expect(await findPerson(sql, person.email)).toMatchObject({ name: 'Odo' });
  await sql`update person_session set ends_at = now() - interval '1 second' where person_id = ${person.id}`;
  expect(await personOfToken(sql, session)).toBeUndefined();
  expect(await personOfToken(sql, 'never made')).toBeUndefined();
});

// The first are among the most common of every published list of leaked passwords with ten letters and more (common
// knowledge, from memory).
test.each(['1234567890', 'qwertyuiop', 'password123', 'iloveyou12', 'qwerty1234'])(
  'the password “%s” is refused',
  async (password) => {
    await expect(signUp(sql, { email: 'weak@wrenfold.example', name: 'Odo', password })).rejects.toThrow(
      'guessed first',
    );
  },
);
