import { describe, expect, test } from 'vitest';
import { auxesis, data, file, rule, rules } from './run-command';

describe('evaluate', () => {
  test('prints what each rule matched and the look of each painted cell', () => {
    const { status, stdout, stderr } = auxesis(['evaluate', data, '-'], rules(rule));
    expect({ status, stderr }).toEqual({ status: 0, stderr: '' });
    const painted = { look: { fill: '#ffe3a3', bold: true }, from: { fill: 'low-oxygen', bold: 'low-oxygen' } };
    expect(JSON.parse(stdout)).toEqual({
      rules: [{ id: 'low-oxygen', matched: ['B2', 'B6'], outcomes: null, problem: null }],
      cells: { B2: painted, B6: painted },
    });
  });

  test('gives outcomes by cell, and the problem of a rule beside the work of the others', () => {
    const bands = {
      id: 'bands',
      reads: { cells: 'B2:B6' },
      when: { kind: 'bands', cuts: [{ field: 'Planned', times: 0.9 }], looks: [{ bold: true }, null] },
    };
    const missing = { ...rule, id: 'missing', reads: { fields: ['Nitrate'] } };
    const report = JSON.parse(auxesis(['evaluate', data, '-'], rules(bands, missing)).stdout) as {
      rules: object[];
      cells: object;
    };
    expect(report.rules).toEqual([
      { id: 'bands', matched: ['B2', 'B3', 'B6'], outcomes: { B2: 1, B3: 1, B6: 0 }, problem: null },
      {
        id: 'missing',
        matched: [],
        outcomes: null,
        problem: { code: 'missing-field', message: expect.stringContaining('Nitrate') as string },
      },
    ]);
    expect(Object.keys(report.cells)).toEqual(['B6']);
  });

  test('reads data from standard input, and without a header', () => {
    const path = file('letters.json', rules({ ...rule, reads: { fields: ['B'] } }));
    const { stdout } = auxesis(['evaluate', '-', path, '--no-header'], 'x,4\ny,6\n');
    expect((JSON.parse(stdout) as { rules: { matched: string[] }[] }).rules[0]!.matched).toEqual(['B1']);
  });

  test('takes the moment to judge by', () => {
    const { status } = auxesis(
      ['evaluate', data, '-', '--now', '2026-03-08T12:00:00+01:00', '--zone', 'Europe/Lisbon', '--week', 'sunday'],
      rules(rule),
    );
    expect(status).toBe(0);
  });

  test('ends with 1 where the rule to fail by matches anything, and prints all the same', () => {
    const { status, stdout } = auxesis(['evaluate', data, '-', '--fail-if', 'low-oxygen'], rules(rule));
    expect([status, stdout.length > 0]).toEqual([1, true]);
    expect(
      auxesis(
        ['evaluate', data, '-', '--fail-if', 'high'],
        rules({ ...rule, id: 'high', when: { kind: 'compare', is: '>', to: 99 } }),
      ).status,
    ).toBe(0);
  });

  test('saved looks are looked up', () => {
    const text = JSON.stringify({
      format: 'auxesis-rules',
      version: 1,
      looks: { alarm: { fill: '#111111', bold: true } },
      rules: [{ ...rule, look: { look: 'alarm', bold: false } }],
    });
    const { cells } = JSON.parse(auxesis(['evaluate', data, '-'], text).stdout) as {
      cells: Record<string, { look: object }>;
    };
    expect(cells.B2!.look).toEqual({ fill: '#111111', bold: false });
  });
});

test('explain prints the trace of a cell', () => {
  const { status, stdout } = auxesis(['explain', data, '-', 'b3'], rules(rule));
  expect(status).toBe(0);
  expect(JSON.parse(stdout)).toMatchObject([
    { rule: 'low-oxygen', state: 'not-matched', cell: 'B3', compared: '5 is below 5', set: {} },
  ]);
});

test('advise prints its advice, with repairs in the words of files', () => {
  const { status, stdout } = auxesis(
    ['advise', data, '-'],
    rules(rule, { ...rule, id: 'second', reads: { fields: ['Dissolved oxygen'] } }),
  );
  expect(status).toBe(0);
  expect(JSON.parse(stdout)).toMatchObject([
    {
      code: 'never-seen',
      rules: ['second', 'low-oxygen'],
      cells: ['B2'],
      repair: [{ kind: 'put-rules', rules: [{ rule: { reads: { fields: ['Dissolved oxygen'] } } }] }],
    },
    { code: 'same-rule', rules: ['low-oxygen', 'second'], repair: [{ kind: 'remove-rules', rules: ['second'] }] },
  ]);
});
