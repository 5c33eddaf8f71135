import { expect, test } from 'vitest';
import { hostName, isOurHost, mayChange } from './origin';

const hosts = ['localhost', '127.0.0.1', '[::1]', 'sheets.wrenfold.example'];

test.each([
  ['127.0.0.1:4380', true],
  ['LOCALHOST', true],
  ['[::1]:80', true],
  ['sheets.wrenfold.example', true],
  ['evil.example', false],
  ['127.0.0.1.evil.example', false],
  ['evil.example:4380', false],
  ['127.0.0.1:4380@evil.example', false],
  ['127.0.0.1/evil', false],
  ['', false],
  [undefined, false],
] as const)('the host “%s”: %s', (host, isOurs) => expect(isOurHost(host, { hosts })).toBe(isOurs));

test('a port is no part of a name', () => expect(hostName('[2001:db8::1]:8080')).toBe('[2001:db8::1]'));

const may = (headers: Record<string, string>, method = 'POST') =>
  mayChange({ method, headers: { host: 'localhost:4380', ...headers } });

// Values of Sec-Fetch-Site: Fetch Metadata Request Headers (W3C), 2.3.
test.each([
  ['a page of ours', { 'sec-fetch-site': 'same-origin' }, true],
  ['the person’s own typing', { 'sec-fetch-site': 'none' }, true],
  ['another site', { 'sec-fetch-site': 'cross-site' }, false],
  ['another name of the same site', { 'sec-fetch-site': 'same-site' }, false],
  ['another site that says it is ours', { 'sec-fetch-site': 'cross-site', origin: 'http://localhost:4380' }, false],
  ['an older browser here', { origin: 'http://localhost:4380' }, true],
  ['an older browser elsewhere', { origin: 'http://evil.example' }, false],
  ['another port', { origin: 'http://localhost:4381' }, false],
  ['a page without an origin', { origin: 'null' }, false],
  ['a program with a token', { authorization: 'Bearer auxesis_x', origin: 'http://evil.example' }, true],
  [
    'a page that sends a token and the cookies too',
    { authorization: 'Bearer x', cookie: 'a=b', 'sec-fetch-site': 'cross-site' },
    false,
  ],
  ['a program without one', {}, true],
] as const)('a change from %s', (_, headers, isTaken) => expect(may(headers)).toBe(isTaken));

test('what changes nothing may come from anywhere', () =>
  expect(may({ 'sec-fetch-site': 'cross-site' }, 'GET')).toBe(true));
