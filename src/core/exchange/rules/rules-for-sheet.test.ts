import { expect, test } from 'vitest';
import { lookOfPart } from '../../sheet/sheet-looks';
import { readRuleSet } from '../../rules/shape/read-rule-set';
import { newField } from '../../sheet/field';
import { Sheet } from '../../sheet/sheet';
import { ruleFile } from './write-rule-file';
import { lookNames, rulesForSheet } from './rules-for-sheet';

const sheetOf = (...labels: readonly string[]) => {
  const made = new Sheet(labels.map((_, at) => newField(`f${at}`, `a${at}`)));
  const cells = Object.fromEntries(labels.map((label, at) => [`f${at}`, label]));
  made.apply({ kind: 'insert-rows', rows: [{ id: 'r0', key: 'a0', role: 'header', cells }] });
  return made;
};
const FILE = {
  format: 'auxesis-rules',
  version: 1,
  rules: [
    {
      id: 'low',
      name: 'Low',
      reads: { fields: ['oxygen'] },
      when: { kind: 'compare', is: '<', to: { field: 'Limit', times: 0.9 } },
      paints: { fields: ['Station', 'Oxygen'] },
      look: { look: 'my look', bold: true },
    },
    {
      id: 'elsewhere',
      name: 'Elsewhere',
      reads: { fields: ['Nitrate'] },
      when: { kind: 'state', is: 'blank' },
      look: { look: 'alarm' },
    },
  ],
  looks: { 'my look': { fill: '#d3e4f6' }, alarm: { fill: '#f7d3c8' } },
};
const read = () => {
  const found = readRuleSet(FILE);
  if ('message' in found) throw new Error(found.message);
  return found.rules;
};

test('fields are matched by label, own looks come along, those of every sheet stay, and a missing field waits', () => {
  const { rules, looks } = rulesForSheet(read(), sheetOf('Station', 'Oxygen', 'Limit'), ({ id }) => `new-${id}`);
  expect(rules[0]).toMatchObject({
    id: 'new-low',
    reads: { fields: ['f1'] },
    when: { to: { field: 'f2', times: 0.9 } },
    paints: { fields: ['f0', 'f1'] },
    look: { look: lookOfPart(looks[0]!.id), bold: true },
  });
  expect(looks).toMatchObject([{ kind: 'look', look: { fill: '#d3e4f6' } }]);
  expect(rules[1]).toMatchObject({ reads: { fields: ['Nitrate'] }, look: { look: 'alarm' } });
});

test('looks that the sheet has are known by name and by id', () => {
  const sheet = sheetOf('Station', 'Oxygen');
  const heavy = { id: 'look-saved-x1', kind: 'look', name: 'Heavy', look: { bold: true } } as const;
  sheet.apply({ kind: 'put-parts', parts: [heavy] });
  const rule = (id: string, look: string) => ({
    id,
    name: id,
    reads: { fields: ['Oxygen'] },
    when: { kind: 'state', is: 'blank' },
    look: { look },
  });
  const rules = [rule('a', 'Heavy'), rule('b', 'saved-x1'), rule('c', 'Alarm')];
  const found = readRuleSet({ format: 'auxesis-rules', version: 1, rules }, lookNames(sheet));
  if ('message' in found) throw new Error(found.message);
  const made = rulesForSheet(found.rules, sheet, ({ id }) => id);
  expect(made.rules.map(({ look }) => look)).toEqual([{ look: 'saved-x1' }, { look: 'saved-x1' }, { look: 'alarm' }]);
  expect(made.looks).toEqual([]);
  expect(
    readRuleSet({ format: 'auxesis-rules', version: 1, rules: [rule('d', 'Nowhere')] }, lookNames(sheet)),
  ).toMatchObject({
    message: expect.stringContaining('Nowhere'),
  });
});

test('rules that are taken out of one sheet mean the same fields in another, wherever they stand there', () => {
  const one = sheetOf('Station', 'Oxygen', 'Limit');
  const { rules, looks } = rulesForSheet(read(), one, ({ id }) => id);
  const out = readRuleSet(
    JSON.parse(
      JSON.stringify(
        ruleFile(rules, one, {
          alarm: { fill: '#f7d3c8' },
          ...Object.fromEntries(looks.map(({ id, look }) => [lookOfPart(id), look])),
        }),
      ),
    ),
  );
  if ('message' in out) throw new Error(out.message);
  const again = rulesForSheet(out.rules, sheetOf('Limit', 'Note', 'OXYGEN', 'Station'), ({ id }) => id);
  expect(again.rules[0]).toMatchObject({
    reads: { fields: ['f2'] },
    when: { to: { field: 'f0' } },
    paints: { fields: ['f3', 'f2'] },
  });
  expect(again.looks.map(({ look }) => look)).toEqual([{ fill: '#d3e4f6' }]);
});
