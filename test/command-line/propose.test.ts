import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { auxesis, data } from './run-command';

interface Told {
  readonly proposals: readonly {
    readonly sentence: string;
    readonly rule: { readonly id: string; readonly when: unknown };
    readonly paints: number;
    readonly near: readonly { readonly cell: string; readonly painted: boolean }[];
  }[];
  readonly ask: { readonly cell: string; readonly paintedBy: readonly number[] } | null;
}

const propose = (...args: string[]): Told => JSON.parse(auxesis(['propose', ...args]).stdout) as Told;

const folder = mkdtempSync(join(tmpdir(), 'auxesis-propose-'));
const file = (name: string, text: string): string => {
  writeFileSync(join(folder, name), text);
  return join(folder, name);
};

// The pass mark of 70 and its neighbours are common practice (docs/rules.md): 69.9 is below, 70 is not.
const marks = file('marks.csv', ['Pupil,Mark', 'Ana,55', 'Bo,69.9', 'Cy,70', 'Di,88', 'Ed,', 'Fi,91'].join('\n'));

test('cells that are painted and cells that are not give a limit between them, with the nearest on both sides', () => {
  const { proposals } = propose(marks, '--paint', 'B2,B3', '--not', 'B4');
  expect(proposals[0]).toMatchObject({
    sentence: 'Mark is below 70',
    paints: 2,
    near: [
      { cell: 'B3', value: '69.9', painted: true },
      { cell: 'B4', value: '70', painted: false },
    ],
  });
});

test('the cell that is asked about is one over which proposals differ', () => {
  const { proposals, ask } = propose(marks, '--paint', 'B2', '--not', 'B7');
  expect(ask?.cell).toMatch(/^B[3-5]$/);
  expect(ask?.paintedBy.length).toBeLessThan(proposals.length);
});

test('a proposed rule can be put into a rule file as it is', () => {
  const { proposals } = propose(marks, '--paint', '2:2,3:3', '--not', '4:4', '--field', 'Mark');
  const rules = file(
    'rules.json',
    JSON.stringify({ format: 'auxesis-rules', version: 1, rules: [proposals[0]?.rule] }),
  );
  const told = JSON.parse(auxesis(['evaluate', marks, rules]).stdout) as { rules: unknown; cells: object };
  expect(told.rules).toMatchObject([{ id: 'proposal-1', matched: ['B2', 'B3'], problem: null }]);
  expect(Object.keys(told.cells)).toEqual(['A2', 'B2', 'A3', 'B3']);
});

test('several looks give bands', () => {
  const { proposals } = propose(marks, '--paint', 'alarm=B2,B3', '--paint', 'clear=B4,B7');
  expect(proposals[0]?.rule.when).toMatchObject({ kind: 'bands', cuts: [70] });
});

test.each([
  [['--paint', 'B2,what'], '--paint is "B2,what"; expected cells or ranges such as B2,B10,C2:C5'],
  [[], 'propose needs --paint with cells that are to be painted, such as B2,B10'],
  [['--paint', 'B1'], 'row 1 is the header; expected cells of records'],
  [['--paint', 'Z90'], 'there is no cell Z90; the sheet has 3 fields'],
  [['--paint', 'loud=B2'], '--paint names the look "loud"; expected one of alarm, watch,'],
  [['--paint', 'B2', '--field', 'Depth'], 'there is no field "Depth"; expected the label of one'],
])('refuses %j in a line that says what was expected', (args, message) => {
  const { stdout, stderr, status } = auxesis(['propose', data, ...args]);
  expect({ stdout, status }).toEqual({ stdout: '', status: 2 });
  expect(stderr).toContain(message);
});
