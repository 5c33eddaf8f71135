import { describe, expect, test } from 'vitest';
import { makeSheet } from '../../../test/support/arbitrary-sheet';
import type { Rule } from '../rules/shape/rule';
import { putRules, rulesOf } from '../rules/shape/stored-rule';
import { editWords, operationsOf, type Edit } from './registry';

const rule = (id: string, more: Partial<Rule> = {}): Rule => ({
  ...{
    id,
    name: id,
    on: true,
    settles: false,
    reads: { fields: ['f1'] },
    when: { kind: 'compare', is: '<', to: 5 },
    paints: 'cell',
  },
  ...{ look: { look: 'alarm' } },
  ...more,
});

/** A sheet with the rules a, b, c and d; b and c are a group. Each edit is applied; gives the ids in order after it. */
function scene() {
  const sheet = makeSheet();
  sheet.apply({ kind: 'remove-rules', rules: rulesOf(sheet).map(({ id }) => id) });
  const rules = [
    rule('a'),
    rule('b', { group: 'pair' }),
    rule('c', { group: 'pair' }),
    rule('d', { when: { kind: 'state', is: 'blank' } }),
  ];
  sheet.apply(putRules(rules.map((each, at) => ({ id: each.id, key: `a${at}`, rule: each }))));
  let made = 0;
  const edit = (one: Edit): string[] => {
    for (const operation of operationsOf(sheet, one, { newId: () => `new${++made}` })) sheet.apply(operation);
    return rulesOf(sheet).map(({ id }) => id);
  };
  const find = (id: string): Rule => rulesOf(sheet).find((stored) => stored.id === id)!.rule;
  return {
    edit,
    find,
    count: () => operationsOf(sheet, { do: 'move-rule', rule: 'a', after: 'gone' }, { newId: () => '' }).length,
  };
}

describe('rules', () => {
  test('are moved after another, or first; between two of a group they join it, and away from it they leave it', () => {
    const { edit, find, count } = scene();
    expect(edit({ do: 'move-rule', rule: 'd', after: null })).toEqual(['d', 'a', 'b', 'c']);
    expect(edit({ do: 'move-rule', rule: 'a', after: 'b' })).toEqual(['d', 'b', 'a', 'c']);
    expect(find('a').group).toBe('pair');
    expect(edit({ do: 'move-rule', rule: 'c', after: 'd' })).toEqual(['d', 'c', 'b', 'a']);
    expect(edit({ do: 'move-rule', rule: 'c', after: null })).toEqual(['c', 'd', 'b', 'a']);
    expect(find('c').group).toBeUndefined();
    expect(count()).toBe(0);
  });

  test('are duplicated, removed and changed together; those that are gone are left out', () => {
    const { edit, find } = scene();
    expect(edit({ do: 'duplicate-rule', rule: 'b' })).toEqual(['a', 'b', 'new1', 'c', 'd']);
    expect(find('new1')).toEqual({ ...find('b'), id: 'new1', name: 'b (copy)' });
    expect(edit({ do: 'remove-rules', rules: ['new1', 'gone'] })).toEqual(['a', 'b', 'c', 'd']);
    edit({
      do: 'change-rules',
      rules: ['a', 'b', 'gone'],
      to: { on: false, settles: true, look: { look: 'plum' }, group: null },
    });
    expect(find('b')).toEqual(rule('b', { on: false, settles: true, look: { look: 'plum' } }));
    edit({ do: 'change-rules', rules: ['a', 'd'], to: { group: 'ends' } });
    expect([find('a').group, find('b').group, find('d').group]).toEqual(['ends', undefined, 'ends']);
  });

  test('read other cells by field or by range, and are carried there under a name that says so', () => {
    const { edit, find } = scene();
    edit({
      do: 'put-rules',
      rules: [
        {
          id: 'e',
          key: 'a4',
          rule: rule('e', { reads: { cells: 'A2:A3' }, when: { kind: 'formula', formula: '=A2>$B$1', at: 'A2' } }),
        },
      ],
    });
    const cells = { fields: ['f2'], areas: [{ left: 1, top: 3, right: 1, bottom: 4 }] };
    edit({ do: 'reach-rules', rules: ['a', 'e'], ...cells });
    expect([find('a').reads, find('e').reads]).toEqual([{ fields: ['f2'] }, { cells: 'B4:B5' }]);
    edit({ do: 'carry-rules', rules: ['e'], fields: ['f3'], areas: [{ left: 2, top: 5, right: 2, bottom: 5 }] });
    expect(find('new1')).toMatchObject({
      name: 'e (C6)',
      reads: { cells: 'C6' },
      when: { formula: '=B4>$B$1', at: 'B4' },
    });
  });

  test.each<[Edit, string]>([
    [{ do: 'put-rules', rules: [{ id: 'a', key: 'a0', rule: rule('a', { name: 'Low' }) }] }, 'rule “Low”'],
    [{ do: 'remove-rules', rules: ['a'] }, 'delete 1 rule'],
    [{ do: 'change-rules', rules: ['a', 'b'], to: { on: false } }, 'switch 2 rules off'],
    [{ do: 'change-rules', rules: ['a', 'b'], to: { look: { look: 'plum' } } }, 'look of 2 rules'],
    [{ do: 'change-rules', rules: ['a', 'b'], to: { group: 'x' } }, 'group 2 rules'],
  ])('%o is called in words for undo', (edit, words) => expect(editWords(edit)).toBe(words));
});
