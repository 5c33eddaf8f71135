import { expect, test } from 'vitest';
import { auxesis, data } from './run-command';

test('calculate gives a value with its type', () => {
  const value = (...args: string[]) => JSON.parse(auxesis(['calculate', ...args]).stdout) as unknown;
  expect(value('=1/2')).toEqual({ type: 'number', value: 0.5 });
  expect(value('1/0')).toEqual({ type: 'error', value: '#DIV/0!' });
  expect(value('=TODAY()', '--now', '2026-03-08T23:30:00Z', '--zone', 'Asia/Tokyo')).toEqual({
    type: 'date',
    value: '2026-03-09',
  });
  expect(value('=B3*2', '--data', data)).toEqual({ type: 'number', value: 10 });
});

test('says how it is used, and which version it is', () => {
  expect(auxesis(['--help']).stdout).toContain('auxesis evaluate DATA [RULES]');
  expect(auxesis(['--version']).stdout).toMatch(/^\d+\.\d+\.\d+\n$/);
});
