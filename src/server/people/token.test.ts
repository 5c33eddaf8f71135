import { expect, test } from 'vitest';
import { hashToken, newToken } from './token';

test('a token is 256 random bits, another each time', () => {
  const tokens = Array.from({ length: 200 }, newToken);
  for (const token of tokens) expect(Buffer.from(token, 'base64url')).toHaveLength(32);
  expect(new Set(tokens).size).toBe(200);
});

// FIPS 180-4; the digest of "abc" is among NIST's example values for SHA-256.
test('what is kept of it is its SHA-256', () => {
  expect(hashToken('abc').toString('hex')).toBe('ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad');
});
