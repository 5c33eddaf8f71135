import fc from 'fast-check';
import { expect, test } from 'vitest';
import { BitSet } from './bit-set';

const members = fc.uniqueArray(fc.integer({ min: 0, max: 200 }), { maxLength: 60 });

function setOf(list: readonly number[]): BitSet {
  const made = new BitSet();
  made.fit(201);
  for (const member of list) made.set(member, true);
  return made;
}

const listOf = (set: BitSet): number[] => {
  const list: number[] = [];
  set.forEach((member) => list.push(member));
  return list;
};

test('a set of bits is a set', () => {
  fc.assert(
    fc.property(members, members, members, (ones, removed, others) => {
      const bits = setOf(ones);
      for (const member of removed) bits.set(member, false);
      const plain = new Set(ones.filter((member) => !removed.includes(member)));
      expect(listOf(bits)).toEqual([...plain].sort((a, b) => a - b));
      expect(bits.count()).toBe(plain.size);
      for (let member = 0; member <= 200; member++) expect(bits.has(member)).toBe(plain.has(member));
      bits.keep(setOf(others));
      expect(listOf(bits)).toEqual([...plain].filter((member) => others.includes(member)).sort((a, b) => a - b));
    }),
  );
});

test('room is made without losing members, and what lies beyond reads as absent', () => {
  const bits = new BitSet();
  expect(bits.has(5000)).toBe(false);
  bits.fit(1);
  bits.set(0, true);
  bits.fit(5001);
  bits.set(5000, true);
  expect(listOf(bits)).toEqual([0, 5000]);
  bits.keep(setOf([0]));
  expect(listOf(bits)).toEqual([0]);
  bits.clear();
  expect(bits.count()).toBe(0);
});
