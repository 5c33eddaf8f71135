import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Rule } from './rule';
import { groupBetween, inGroup, ruleGroups } from './rule-groups';

const rule = (group?: string): Rule => ({
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['a'] },
  when: { kind: 'state', is: 'blank' },
  paints: 'cell',
  ...(group === undefined ? {} : { group }),
});
const some = fc.array(fc.option(fc.constantFrom('a', 'b'), { nil: undefined }));

test('groups keep every rule in its place, and no two that follow one another could be one', () => {
  fc.assert(
    fc.property(some, (names) => {
      const entries = names.map((name, at) => ({ at, rule: rule(name) }));
      const groups = ruleGroups(entries, (entry) => entry.rule.group);
      expect(groups.flatMap((group) => group.entries)).toEqual(entries);
      for (const { name, entries: members } of groups) {
        expect(members.every((member) => (member.rule.group ?? null) === name)).toBe(true);
        if (name === null) expect(members).toHaveLength(1);
      }
      for (const [at, { name }] of groups.entries()) if (name !== null) expect(groups[at + 1]?.name).not.toBe(name);
    }),
  );
});

test.each([
  ['between two of a group it joins them', { own: undefined, before: 'a', after: 'a' }, 'a'],
  ['also from another', { own: 'b', before: 'a', after: 'a' }, 'a'],
  ['at the edge of its own it stays', { own: 'a', before: 'b', after: 'a' }, 'a'],
  ['away from its own it has none', { own: 'a', before: 'b', after: undefined }, undefined],
  ['between two groups it has none', { own: undefined, before: 'a', after: 'b' }, undefined],
])('%s', (_, { own, before, after }, group) => expect(groupBetween(own, before, after)).toBe(group));

test('a rule without a group says nothing of one', () => expect(inGroup(rule('a'), undefined)).toEqual(rule()));
