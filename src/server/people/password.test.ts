import { expect, test } from 'vitest';
import { hashPassword, isPassword } from './password';

// RFC 7914, section 12: the first 32 octets of its test vectors (what is longer begins alike, as PBKDF2 makes it block
// by block).
test.each([
  {
    password: 'password',
    salt: 'NaCl',
    cost: [1024, 8, 16],
    hash: 'fdbabe1c9d3472007856e7190d01e9fe7c6ad7cbc8237830e77376634b373162',
  },
  {
    password: 'pleaseletmein',
    salt: 'SodiumChloride',
    cost: [16_384, 8, 1],
    hash: '7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2',
  },
])('the test vector of RFC 7914 for “$password”', async ({ password, salt, cost, hash }) => {
  const kept = [
    'scrypt',
    ...cost,
    Buffer.from(salt).toString('base64'),
    Buffer.from(hash, 'hex').toString('base64'),
  ].join('$');
  expect(await isPassword(password, kept)).toBe(true);
  expect(await isPassword(`${password} `, kept)).toBe(false);
});

test('what is kept of a password is another each time, and holds nothing of it', async () => {
  const [one, other] = await Promise.all([hashPassword('marigold ferry'), hashPassword('marigold ferry')]);
  expect(one).not.toBe(other);
  expect(one).not.toContain('marigold');
  expect(await isPassword('marigold ferry', one)).toBe(true);
  expect(await isPassword('marigold ferry', other)).toBe(true);
  expect(await isPassword('Marigold ferry', one)).toBe(false);
});

// RFC 8265, section 4.2: passwords are put in Unicode normalization form C.
test('a password is the same however a keyboard composes its letters', async () => {
  const kept = await hashPassword('r\u00eeviere de No\u00ebl');
  expect(await isPassword('ri\u0302viere de Noe\u0308l', kept)).toBe(true);
  expect(await isPassword('riviere de Noel', kept)).toBe(false);
});

test('nobody gets in where no password is kept', async () => {
  for (const kept of [null, undefined])
    for (const password of ['', '\0'.repeat(16), 'marigold ferry'])
      expect(await isPassword(password, kept)).toBe(false);
});
