import { describe, expect, test } from 'vitest';
import { makeSheet } from '../../../../test/support/arbitrary-sheet';
import type { Sheet } from '../../sheet/sheet';
import { putRuleSetToWork } from './put-rule-set-to-work';
import type { Rule } from '../shape/rule';
import { keptRules } from './rule-set-sheet';
import { putRules, rulesOf } from '../shape/stored-rule';

const rule = (id: string, rest: Partial<Rule>): Rule => ({
  id,
  name: id,
  on: true,
  settles: false,
  reads: { fields: ['f2'] },
  when: { kind: 'compare', is: '<', to: 5 },
  paints: 'cell',
  look: { look: 'saved-mine' },
  ...rest,
});
const put = (sheet: Sheet, ...rules: Rule[]) =>
  sheet.apply(putRules(rules.map((each, at) => ({ id: each.id, key: `a${at}`, rule: each }))));

/** The sheet where the rules are made, and another whose fields stand in another order. */
function twoSheets(): { from: Sheet; to: Sheet } {
  const [from, to] = [makeSheet(), makeSheet()];
  const labels = ['Three', 'One', 'Two'].map((input, at) => ({ row: 'header', field: `f${at + 1}`, input }));
  to.apply({ kind: 'set-cells', cells: labels });
  from.apply({
    kind: 'put-parts',
    parts: [{ id: 'look-saved-mine', kind: 'look', name: 'Mine', look: { fill: '#ffeecc' } }],
  });
  put(
    from,
    rule('low', {}),
    rule('formula', { reads: { fields: ['f1'] }, when: { kind: 'formula', formula: '=A2>B2' } }),
  );
  return { from, to };
}

let made = 0;
const use = (to: Sheet, from: Sheet, version: number) => {
  const used = putRuleSetToWork(
    to,
    { id: 'set', name: 'Limits', version, body: keptRules(from, ['low', 'formula']) },
    () => `n${++made}`,
  );
  if ('operations' in used) for (const operation of used.operations) to.apply(operation);
  return used;
};

describe('a rule set', () => {
  test('finds the fields of another sheet by their labels, in formulas too, and takes its looks along', () => {
    const { from, to } = twoSheets();
    use(to, from, 1);
    const [low, formula] = rulesOf(to).map((stored) => stored.rule);
    expect(low!.reads).toEqual({ fields: ['f3'] });
    expect([formula!.reads, formula!.when]).toEqual([
      { fields: ['f2'] },
      { kind: 'formula', formula: '=B2>C2', at: 'B2' },
    ]);
    expect(to.parts.get('look-saved-mine')).toMatchObject({ name: 'Mine' });
  });

  test('moves on: its rules are replaced where they stand, new ones come, those that went go, and others stay', () => {
    const { from, to } = twoSheets();
    use(to, from, 1);
    const [first] = to.rulesInOrder();
    to.apply(putRules([{ id: 'own', key: 'a1V', rule: rule('own', {}) }]));
    from.apply({ kind: 'remove-rules', rules: ['formula'] });
    put(from, rule('low', { when: { kind: 'compare', is: '<', to: 4 } }), rule('fresh', {}));
    const used = putRuleSetToWork(
      to,
      { id: 'set', name: 'Limits', version: 2, body: keptRules(from, ['low', 'fresh']) },
      () => 'new',
    );
    for (const operation of 'operations' in used ? used.operations : []) to.apply(operation);
    const rules = to.rulesInOrder();
    expect(new Set(rules.map(({ id }) => id))).toEqual(new Set([first!.id, 'own', 'new']));
    expect(rules.find(({ id }) => id === first!.id)).toMatchObject({ key: first!.key, rule: { when: { to: 4 } } });
    expect(to.parts.get('rule-set set')).toMatchObject({ version: 2, rules: { low: first!.id, fresh: 'new' } });
    // Used once more, nothing is doubled.
    const again = putRuleSetToWork(
      to,
      { id: 'set', name: 'Limits', version: 2, body: keptRules(from, ['low', 'fresh']) },
      () => 'doubled',
    );
    for (const operation of 'operations' in again ? again.operations : []) to.apply(operation);
    expect(rulesOf(to).map(({ id }) => id)).toEqual(rules.map(({ id }) => id));
  });

  test('names the fields that are not there, and changes nothing', () => {
    const { from, to } = twoSheets();
    to.apply({ kind: 'set-cells', cells: [{ row: 'header', field: 'f3', input: 'Other' }] });
    expect(use(to, from, 1)).toEqual({ missing: ['Two'] });
  });
});
