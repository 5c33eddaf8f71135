import { expect, test } from 'vitest';
import { readFilter } from './read-filter';

const asked = (json: string) => readFilter(`?filter=${encodeURIComponent(json)}`);

test.each([[{ rule: 'r1' }], [{ field: 'f1', texts: ['weir', ''] }], [{ field: 'f1', is: 'at least', value: '5' }]])(
  '%j is read as it is',
  (filter) => expect(asked(JSON.stringify(filter))).toEqual(filter),
);

test.each([
  '{',
  '7',
  'null',
  '[]',
  '{"rule":{}}',
  '{"field":"f1"}',
  '{"field":"f1","texts":3}',
  '{"field":"f1","texts":[1]}',
  '{"field":"f1","is":"odd","value":"5"}',
  '{"field":"f1","is":"holds","value":5}',
])('%s filters nothing', (json) => expect(asked(json)).toBeNull());

test('nor does an address that asks for none', () => expect(readFilter('')).toBeNull());
