import { expect, test } from 'vitest';
import { OWN_ALL } from '../../core/sharing/role';
import type { FoundAccess } from './access';
import { KnownAccess } from './known-access';

const access = (person: string, endsAt: number | null = null): FoundAccess => ({
  access: { role: 'editor', own: OWN_ALL, author: `person ${person}`, name: person, person: undefined },
  endsAt,
});

/** Asks, and counts how often the database was asked. */
function asker() {
  const known = new KnownAccess();
  let asked = 0;
  const ask = (person: string, sheet = 's', found: FoundAccess | undefined = access(person)) =>
    known.get(`${sheet} ${person}`, sheet, () => {
      asked++;
      return Promise.resolve(found);
    });
  return { known, ask, asked: () => asked };
}

test('access is asked for once, from when changes of it are heard of', async () => {
  const { known, ask, asked } = asker();
  await ask('odo');
  await ask('odo');
  expect(asked()).toBe(2);
  known.begin();
  for (let times = 0; times < 3; times++) expect(await ask('odo')).toEqual(access('odo'));
  expect(asked()).toBe(3);
});

test('a change of access is forgotten for whom it concerns, at once; all of them where some were missed', async () => {
  const { known, ask, asked } = asker();
  known.begin();
  for (const sheet of ['s', 't']) for (const person of ['odo', 'ilse']) await ask(person, sheet);
  known.forget({ person: 'odo' });
  for (const sheet of ['s', 't']) for (const person of ['odo', 'ilse']) await ask(person, sheet);
  expect(asked()).toBe(6);
  known.forget({ sheet: 's' });
  for (const sheet of ['s', 't']) for (const person of ['odo', 'ilse']) await ask(person, sheet);
  expect(asked()).toBe(8);
  known.forget();
  await ask('ilse', 't');
  expect(asked()).toBe(9);
});

test('what was found while access changed is not kept, nor none, nor what has ended', async () => {
  const { known, ask, asked } = asker();
  known.begin();
  await known.get('k', 's', () => {
    known.forget({ sheet: 'elsewhere' });
    return Promise.resolve(access('odo'));
  });
  await known.get('k', 's', () => Promise.resolve(undefined));
  expect(await known.get('k', 's', () => Promise.resolve(access('ilse')))).toEqual(access('ilse'));
  await ask('odo', 's', access('odo', Date.now() - 1));
  await ask('odo', 's', access('odo', Date.now() - 1));
  expect(asked()).toBe(2);
});
