import { describe, expect, test } from 'vitest';
import { callAround } from '../resolve/call-around';
import { referencesIn, stepAnchors, wantsReference, wordBefore } from './typed-formula';

const sheet = {
  labels: ['Station', 'Dissolved oxygen', 'Turbidity'],
  names: [{ id: 'limits', kind: 'name' as const, name: 'Limits', refersTo: '=$B$2:$B$4' }],
  rowCount: 20,
  firstRecord: 1,
};

describe('references in a formula that is being typed', () => {
  test.each([
    ['=B2+$C$3*', ['B2 1,1,1,1', '$C$3 2,2,2,2']],
    ['=SUM(B9:C2; B:C', ['B9:C2 1,1,2,8', 'B:C 1,0,2,19']],
    ['=4:5', ['4:5 0,3,2,4']],
    ["='Dissolved oxygen'>turbidity", ["'Dissolved oxygen' 1,1,1,19", 'turbidity 2,1,2,19']],
    ['=MAX(Limits)', ['Limits 1,1,1,3']],
    ['=$\'Sampling kit\'.B4 + "A1" & LOG10(A1)', ['A1 0,0,0,0']],
    ['B2', ['B2 1,1,1,1']],
    ['=5', []],
  ])('%s', (text, expected) => {
    const found = referencesIn(text, sheet).map(
      ({ from, to, area: { left, top, right, bottom } }) => `${text.slice(from, to)} ${left},${top},${right},${bottom}`,
    );
    expect(found).toEqual(expected);
  });
});

test.each([
  ['=|', true],
  ['=B2+|', true],
  ['=SUM(|', true],
  ['=SUM(B2;|)', true],
  ['=B2|', false],
  ['=SUM(B2)|', false],
  ['=|B2', false],
  ['="a + |"', false],
  ['+|', false],
])('whether a reference can stand at %s', (marked, expected) => {
  expect(wantsReference(marked.replace('|', ''), marked.indexOf('|'))).toBe(expected);
});

test.each([
  ['=IF(B2>5; ROUND(C2;|', 'ROUND', 1],
  ['=IF(B2>5; ROUND(C2; 1)|', 'IF', 1],
  ['=IF((B2+1|', 'IF', 0],
  ['=SUM({1;2|', 'SUM', 0],
  ['=IF("a;b", |', 'IF', 1],
  ['=IF(B2)|', undefined, undefined],
  ['=nothing(|', undefined, undefined],
])('which call and argument is at %s', (marked, name, argument) => {
  const found = callAround(marked.replace('|', ''), marked.indexOf('|'));
  expect([found?.spec.name, found?.argument]).toEqual([name, argument]);
});

test.each([
  ['=su|', 'su', false],
  ["=AVERAGE('Diss|", 'Diss', true],
  ["='Dissolved oxygen'+T|", 'T', false],
  ['="su|', undefined, undefined],
  ['su|', undefined, undefined],
])('what word can be completed at %s', (marked, word, isQuoted) => {
  const found = wordBefore(marked.replace('|', ''), marked.indexOf('|'));
  expect([found?.word, found?.isQuoted]).toEqual([word, isQuoted]);
});

test('a reference is stepped through its four anchorings, and a range with both corners', () => {
  let text = '=1+b2';
  const seen: string[] = [];
  for (let step = 0; step < 4; step++) {
    const { from, to, insert } = stepAnchors(text, text.length)!;
    text = text.slice(0, from) + insert + text.slice(to);
    seen.push(text);
  }
  expect(seen).toEqual(['=1+$B$2', '=1+B$2', '=1+$B2', '=1+B2']);
  expect(stepAnchors('=SUM(B2:C9)', 6)).toMatchObject({ insert: '$B$2:$C$9' });
  expect(stepAnchors('=SUM(B2:C9)', 2)).toBeNull();
});
