import { expect, test } from 'vitest';
import { internalPath } from './internal-path';

test.each(['/', '/sheets/abc?row=r#x', '/links/a-token'])('%s is a path of the app', (path) =>
  expect(internalPath(path)).toBe(path),
);

test.each([
  '//evil.example',
  '/\\evil.example',
  '/\t/evil.example',
  '/\n//evil.example',
  '\\\\evil.example',
  'https://evil.example',
  'javascript:alert(1)',
  'sheets',
  '/.//evil.example',
  '',
  undefined,
  ['/a', '/b'],
])('%j leads to the start', (path) => expect(internalPath(path)).toBe('/'));
