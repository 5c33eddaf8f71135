import Joi from 'joi';
import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { completePhrase, readPhrase } from './read-phrase';
import type { PhraseSheet } from './phrase-cursor';
import { PHRASE_TESTS } from './phrase-tests';
import { FIRST_FAMILY } from '../../../looks/first-family';
import { kindOf } from '../../kinds/registry';

const field = (id: string, label: string, shown: { format?: string; unit?: string } = {}) => ({
  id,
  label,
  format: null,
  unit: null,
  ...shown,
});
const FIELDS = [
  field('station', 'Station'),
  field('oxygen', 'Dissolved oxygen', { format: '0.0', unit: 'mg/L' }),
  field('saturation', 'Saturation', { format: '0%' }),
  field('nitrate', 'Nitrate'),
  field('due', 'Next due'),
  field('calibrated', 'Last calibrated'),
  field('planned', 'Planned'),
  field('actual', 'Actual'),
];
const ideaOf = (text: string) => {
  const reading = readPhrase(text, { fields: FIELDS });
  return 'ideas' in reading ? reading.ideas[0]! : reading;
};

describe('phrases', () => {
  test.each<[string, string, object]>([
    ['oxygen below 5 as alarm', 'oxygen', { kind: 'compare', is: '<', to: 5 }],
    ['OXYGEN is under 5 mg/L', 'oxygen', { kind: 'compare', is: '<', to: 5 }],
    ['dissolved oxygen between 4 and 6', 'oxygen', { kind: 'compare', is: 'between', to: [4, 6] }],
    ['saturation under 70', 'saturation', { kind: 'compare', is: '<', to: 0.7 }],
    ['saturation at least 95%', 'saturation', { kind: 'compare', is: '>=', to: 0.95 }],
    ['oxygen below F4', 'oxygen', { kind: 'compare', is: '<', to: { cell: 'F4' } }],
    ['actual below planned', 'actual', { kind: 'compare', is: '<', to: { field: 'planned' } }],
    [
      'actual more than 10 % under planned',
      'actual',
      { kind: 'compare', is: '<', to: { field: 'planned', times: 0.9 } },
    ],
    ['actual 5% over planned', 'actual', { kind: 'compare', is: '>', to: { field: 'planned', times: 1.05 } }],
    ['station is Alder Weir', 'station', { kind: 'compare', is: '=', to: 'Alder Weir' }],
    ['station contains weir or mill', 'station', { kind: 'text', is: 'contains', any: ['weir', 'mill'] }],
    ['station contains "bed and bank"', 'station', { kind: 'text', is: 'contains', any: ['bed and bank'] }],
    ['nitrate is blank', 'nitrate', { kind: 'state', is: 'blank' }],
    ['station is repeated', 'station', { kind: 'repeat', is: 'repeated' }],
    ['nitrate above the average', 'nitrate', { kind: 'average', is: 'above' }],
    ['top 10% of nitrate', 'nitrate', { kind: 'rank', is: 'top', percent: 10 }],
    ['nitrate top 3', 'nitrate', { kind: 'rank', is: 'top', n: 3 }],
    ['nitrate is in the lowest 10%', 'nitrate', { kind: 'rank', is: 'bottom', percent: 10 }],
    ['lowest 3 nitrate', 'nitrate', { kind: 'rank', is: 'bottom', n: 3 }],
    ['next due is past', 'due', { kind: 'date', is: 'past' }],
    ['next due in the next 7 days', 'due', { kind: 'date', is: { next: 7, unit: 'day' } }],
    ['last calibrated in the last 2 weeks', 'calibrated', { kind: 'date', is: { last: 2, unit: 'week' } }],
    ['next due this month', 'due', { kind: 'date', is: { this: 'month' } }],
    [
      'nitrate changed in the last 2 hours',
      'nitrate',
      { kind: 'change', is: 'changed', within: { n: 2, unit: 'hour' } },
    ],
    ['oxygen has fallen within 1 week', 'oxygen', { kind: 'change', is: 'fell', within: { n: 1, unit: 'week' } }],
    ['next due on 2026-03-08', 'due', { kind: 'date', is: 'on', to: '2026-03-08' }],
    ['next due is next week', 'due', { kind: 'date', is: { following: 'week' } }],
    ['next due is last month', 'due', { kind: 'date', is: { previous: 'month' } }],
    ['next due in the previous quarter', 'due', { kind: 'date', is: { previous: 'quarter' } }],
    ['next due within the last 7 days', 'due', { kind: 'date', is: { last: 7, unit: 'day' } }],
    ['next due in 7 days', 'due', { kind: 'date', is: { next: 7, unit: 'day' } }],
    ['next due is tomorrow', 'due', { kind: 'date', is: 'tomorrow' }],
    ['next due is before today', 'due', { kind: 'date', is: 'past' }],
    ['nitrate is not blank', 'nitrate', { kind: 'state', is: 'filled' }],
    ['nitrate has no value', 'nitrate', { kind: 'state', is: 'blank' }],
    ['nitrate is not an error', 'nitrate', { kind: 'state', is: 'valid' }],
    ['nitrate is valid', 'nitrate', { kind: 'state', is: 'valid' }],
    ['station is a duplicate', 'station', { kind: 'repeat', is: 'repeated' }],
    ['nitrate is negative', 'nitrate', { kind: 'compare', is: '<', to: 0 }],
    ['station is one of weir, mill', 'station', { kind: 'text', is: 'equals', any: ['weir', 'mill'] }],
    ['station is weir, mill or ferry', 'station', { kind: 'text', is: 'equals', any: ['weir', 'mill', 'ferry'] }],
    ['station is not weir or mill', 'station', { kind: 'text', is: 'differs', any: ['weir', 'mill'] }],
    ['nitrate ≥ 5', 'nitrate', { kind: 'compare', is: '>=', to: 5 }],
    ['nitrate ≤ 5', 'nitrate', { kind: 'compare', is: '<=', to: 5 }],
    ['nitrate ≠ 5', 'nitrate', { kind: 'compare', is: '!=', to: 5 }],
    ['nitrate from 500 to 700', 'nitrate', { kind: 'compare', is: 'between', to: [500, 700] }],
    ['nitrate from 500', 'nitrate', { kind: 'compare', is: '>=', to: 500 }],
    ['nitrate 3 or more', 'nitrate', { kind: 'compare', is: '>=', to: 3 }],
    ['nitrate is 2 or less', 'nitrate', { kind: 'compare', is: '<=', to: 2 }],
    ['nitrate not below 5', 'nitrate', { kind: 'compare', is: '>=', to: 5 }],
    ['nitrate above 10 000', 'nitrate', { kind: 'compare', is: '>', to: 10_000 }],
    // ISO 80000-1, 7.3: a decimal comma, where it can be nothing else.
    ['nitrate above 5,5', 'nitrate', { kind: 'compare', is: '>', to: 5.5 }],
    ['nitrate above $10,000', 'nitrate', { kind: 'compare', is: '>', to: 10_000 }],
    ['nitrate above −2', 'nitrate', { kind: 'compare', is: '>', to: -2 }],
    ['oxygen below f4', 'oxygen', { kind: 'compare', is: '<', to: { cell: 'F4' } }],
    ['station is made in house', 'station', { kind: 'compare', is: '=', to: 'made in house' }],
  ])('“%s”', (text, fieldId, when) => {
    expect(ideaOf(text)).toMatchObject({ reads: { fields: [fieldId] }, when, paints: 'cell' });
  });

  test('a part of a label names the other field too, where words can be no value', () => {
    const contents = new Set(['numbers'] as const);
    const fields = FIELDS.map((field) => ({ ...field, contents }));
    expect(readPhrase('nitrate above oxygen', { fields })).toMatchObject({
      ideas: [{ when: { kind: 'compare', is: '>', to: { field: 'oxygen' } } }],
    });
    // Where a field holds texts, “with” comes before one; where it holds none, before what it is shown with.
    expect(readPhrase('nitrate with weir', { fields })).toMatchObject({ at: 13 });
    expect(ideaOf('station with weir')).toMatchObject({ when: { kind: 'text', is: 'contains', any: ['weir'] } });
  });

  test('a formula is about the selected fields', () => {
    const sheet = { fields: FIELDS, selected: { fields: ['nitrate'], cells: 'C2:C9' } };
    expect(readPhrase('=nitrate>actual*2 as alarm', sheet)).toMatchObject({
      ideas: [
        {
          reads: { fields: ['nitrate'] },
          when: { kind: 'formula', formula: '=nitrate>actual*2' },
          look: { look: 'alarm' },
        },
      ],
    });
    expect(readPhrase('whole record where =station="as it was"', sheet)).toMatchObject({
      ideas: [{ when: { formula: '=station="as it was"' }, paints: 'record', look: { look: 'watch' } }],
    });
    expect(readPhrase('=nitrate>', sheet)).toMatchObject({ expected: expect.stringContaining('formula') as string });
  });

  test('several fields are read together', () => {
    const reads = { fields: ['planned', 'actual', 'nitrate'] };
    expect(ideaOf('planned, actual and nitrate below 70')).toMatchObject({ reads });
    expect(ideaOf('top 3 of planned and actual')).toMatchObject({ reads: { fields: ['planned', 'actual'] } });
  });

  test.each<[string, object]>([
    ['nitrate with bands at 5 and 10', { kind: 'bands', cuts: [5, 10] }],
    ['nitrate with stars', { kind: 'icons', set: 'stars3', cuts: [{ at: { percent: 33 } }, { at: { percent: 67 } }] }],
    ['saturation in bands at 5% and 10%', { kind: 'bands', cuts: [0.05, 0.1] }],
    [
      'saturation in bands at 5%, 10% in red, yellow and green',
      {
        kind: 'bands',
        cuts: [0.05, 0.1],
        looks: [expect.objectContaining({ fill: '#ff0000' }), { fill: '#ffff00', text: '#111111' }, expect.anything()],
      },
    ],
    ['nitrate in bands at f1 and f2', { kind: 'bands', cuts: [{ cell: 'F1' }, { cell: 'F2' }] }],
    ['nitrate in a colour scale', { kind: 'scale' }],
    [
      'nitrate in a colour scale from red over yellow to green',
      {
        kind: 'scale',
        stops: [
          { at: 'least', color: '#ff0000' },
          { at: { percent: 50 }, color: '#ffff00' },
          { at: 'greatest', color: '#008000' },
        ],
      },
    ],
    ['nitrate with bars', { kind: 'bar' }],
    ['nitrate with bars in gold', { kind: 'bar', color: '#ffd700' }],
    ['nitrate with stars at 70 and 90', { kind: 'icons', set: 'stars3', cuts: [{ at: 70 }, { at: 90 }] }],
    [
      'saturation with arrows at 50, 70 and 90',
      { kind: 'icons', set: 'arrows4', cuts: [{ at: 0.5 }, { at: 0.7 }, { at: 0.9 }] },
    ],
    ['station with a look for each value', { kind: 'category' }],
    ['actual checked against planned', { kind: 'key', expect: { field: 'planned' } }],
  ])('a whole field at once: “%s”', (text, when) => {
    expect(ideaOf(text)).toMatchObject({ when });
  });

  const ideasOf = (text: string, sheet: Partial<PhraseSheet> = {}) => {
    const reading = readPhrase(text, { fields: FIELDS, ...sheet });
    return 'ideas' in reading ? reading.ideas : reading;
  };

  test('several rules stand one after another; what is the same is said once', () => {
    expect(ideasOf('nitrate above 89 as clear, below 70 as alarm')).toMatchObject([
      { reads: { fields: ['nitrate'] }, when: { is: '>', to: 89 }, look: { look: 'clear' } },
      { reads: { fields: ['nitrate'] }, when: { is: '<', to: 70 }, look: { look: 'alarm' } },
    ]);
    expect(ideasOf('actual greater than planned; planned greater than actual')).toMatchObject([
      { reads: { fields: ['actual'] }, when: { to: { field: 'planned' } } },
      { reads: { fields: ['planned'] }, when: { to: { field: 'actual' } } },
    ]);
    expect(ideasOf('records where station is done as clear, blocked as alarm and waiting as watch')).toMatchObject([
      { paints: 'record', when: { is: '=', to: 'done' }, look: { look: 'clear' } },
      { paints: 'record', when: { is: '=', to: 'blocked' }, look: { look: 'alarm' } },
      { paints: 'record', when: { is: '=', to: 'waiting' }, look: { look: 'watch' } },
    ]);
    expect(ideasOf('records where station is blocked in purple; nitrate with bars')).toMatchObject([
      { paints: 'record', when: { to: 'blocked' } },
      { paints: 'cell', when: { kind: 'bar' } },
    ]);
    expect(ideasOf('nitrate with bars, at most 70% as bold on yellow')).toMatchObject([
      { when: { kind: 'bar' } },
      { when: { is: '<=' }, look: { bold: true, fill: '#ffff00' } },
    ]);
  });

  test('two tests with “and” between are not taken apart into two rules', () => {
    expect(ideasOf('oxygen below 5 and nitrate above 40')).toMatchObject({
      expected: expect.stringContaining('comma'),
    });
  });

  test('without a field it is the selected ones, and cells where they are said', () => {
    const selected = { fields: ['planned', 'actual'], cells: 'G2:H9' };
    expect(ideasOf('above 10000 as gold fill, bold, red text', { selected })).toMatchObject([
      { reads: { fields: ['planned', 'actual'] }, look: { fill: '#ffd700', bold: true, text: '#ff0000' } },
    ]);
    expect(ideasOf('the selected cells above 3', { selected })).toMatchObject([{ reads: { cells: 'G2:H9' } }]);
    expect(ideasOf('top 3', { selected })).toMatchObject([{ when: { kind: 'rank', n: 3 } }]);
    expect(ideasOf('above 3')).toMatchObject({ at: 0, expected: expect.stringContaining('field') });
  });

  test('what is painted and which rows count are said at the end, for all rules before', () => {
    expect(ideasOf('station is right as clear, wrong as alarm, paint station and nitrate')).toMatchObject([
      { paints: { fields: ['station', 'nitrate'] } },
      { paints: { fields: ['station', 'nitrate'] } },
    ]);
    expect(ideasOf('nitrate above 5 as alarm on the whole record')).toMatchObject([{ paints: 'record' }]);
    expect(ideasOf('nitrate in bands at 5 and 10 with totals')).toMatchObject([
      { reads: { fields: ['nitrate'], roles: ['record', 'total'] } },
    ]);
    expect(ideasOf('nitrate above 5 as alarm, in bands at 5 and 10, whatever the sign')).toMatchObject([
      { when: { kind: 'compare', magnitude: true } },
      { when: { kind: 'bands', magnitude: true } },
    ]);
    expect(ideasOf('every second record in lightgrey')).toMatchObject([
      { when: { kind: 'formula' }, paints: 'record', look: { fill: '#d3d3d3' } },
    ]);
  });

  test('words of the grammar win over texts, and texts of the field over the grammar', () => {
    const status = {
      ...field('status', 'Status'),
      contents: new Set(['texts'] as const),
      texts: ['Below average', 'ok'],
    };
    const whenOf = (text: string, of: typeof status = status) => {
      const reading = readPhrase(text, { fields: [of] });
      return 'ideas' in reading ? reading.ideas[0]!.when : reading;
    };
    expect(whenOf('status is below average as alarm')).toEqual({ kind: 'compare', is: '=', to: 'Below average' });
    expect(whenOf('status is not below average')).toEqual({ kind: 'compare', is: '!=', to: 'Below average' });
    expect(whenOf('status is below average, ok')).toEqual({ kind: 'text', is: 'equals', any: ['Below average', 'ok'] });
    expect(whenOf('status is blank')).toEqual({ kind: 'state', is: 'blank' });
    expect(whenOf('status is above average')).toMatchObject({ kind: 'average' });
  });

  test('a text asked of a field that holds numbers or dates alone is asked back', () => {
    const numbers = { ...field('n', 'Amount'), contents: new Set(['numbers'] as const) };
    const dates = { ...field('d', 'Due'), contents: new Set(['dates'] as const) };
    expect(readPhrase('amount is plenty', { fields: [numbers] })).toMatchObject({
      at: 10,
      expected: expect.stringContaining('number'),
    });
    expect(readPhrase('due is soon', { fields: [dates] })).toMatchObject({
      at: 7,
      expected: expect.stringContaining('day'),
    });
    expect(readPhrase('due is 2026-03-08', { fields: [dates] })).toHaveProperty('ideas');
    expect(readPhrase('amount is 5', { fields: [numbers] })).toHaveProperty('ideas');
  });

  test('a look is named, saved or described; colours go by their names in CSS Color 4', () => {
    const lookOf = (text: string) => {
      const reading = readPhrase(text, { fields: FIELDS, looks: [...FIRST_FAMILY, { id: 'x1', name: 'Our own' }] });
      return 'ideas' in reading ? reading.ideas[0]!.look : reading;
    };
    expect(lookOf('nitrate above 40 as our own')).toEqual({ look: 'x1' });
    expect(lookOf('nitrate above 40 in alarm')).toEqual({ look: 'alarm' });
    // CSS Color Module Level 4, 6.1: gold is #ffd700, red #ff0000, yellow #ffff00, navy #000080.
    expect(lookOf('nitrate above 40 as bold red on gold')).toEqual({ bold: true, text: '#ff0000', fill: '#ffd700' });
    expect(lookOf('nitrate above 40 in yellow')).toEqual({ fill: '#ffff00', text: '#111111' });
    expect(lookOf('nitrate above 40 as navy')).toEqual({ fill: '#000080', text: '#ffffff' });
    expect(lookOf('nitrate above 40 as bold and italic')).toEqual({ bold: true, italic: true });
    expect(lookOf('nitrate above 40 with a dashed red border')).toEqual({
      border: { around: { style: 'dashed', width: 2, color: '#ff0000' } },
    });
    expect(lookOf('nitrate above 40 as gold fading to white')).toEqual({ fill: { from: '#ffd700', to: '#ffffff' } });
    expect(lookOf('nitrate above 40 in translucent gold with a border')).toMatchObject({
      fill: { color: '#ffd700', opacity: 0.4 },
      border: { around: { style: 'solid' } },
    });
  });

  test('the scope and the look', () => {
    for (const scope of ['row where', 'rows where', 'whole row where', 'records where'])
      expect(ideaOf(`${scope} nitrate above 40`)).toMatchObject({ paints: 'record' });
    expect(ideaOf('whole record where nitrate above 40 as plum')).toMatchObject({
      paints: 'record',
      look: { look: 'plum' },
    });
    expect(ideaOf('nitrate above 40')).toMatchObject({ look: { look: 'watch' } });
  });

  test.each([
    ['', 0, 'a field'],
    ['phosphate below 5', 0, 'a field'],
    ['due', 3, 'what is asked'],
    ['nitrate in bands', 16, 'cut'],
    ['nitrate below plenty', 14, 'a number'],
    ['next due before soon', 16, 'a day'],
    ['nitrate below 5 as sunshine', 19, 'a look'],
    ['nitrate below 5 sunshine', 14, 'a number'],
    ['top many of nitrate', 4, 'how many'],
  ])('“%s” stops at %i', (text, at, expected) => {
    const reading = readPhrase(text, { fields: FIELDS });
    expect(reading).toMatchObject({ at });
    expect('expected' in reading && reading.expected).toContain(expected);
  });

  test('what may come next is offered from labels, tests and looks', () => {
    expect(completePhrase('oxy', { fields: FIELDS })).toEqual(['Dissolved oxygen ']);
    expect(completePhrase('nitrate bel', { fields: FIELDS })).toContain('nitrate below ');
    expect(completePhrase('nitrate below 5 as al', { fields: FIELDS })).toEqual(['nitrate below 5 as Alarm ']);
    expect(completePhrase('nitrate', { fields: FIELDS })[0]).toBe('nitrate below ');
  });

  test('every test that is offered makes a condition that its kind takes', () => {
    for (const each of PHRASE_TESTS) {
      const operands = Array.from({ length: each.takes }, () =>
        each.operand === 'date' ? '2026-03-08' : each.operand === 'text' ? 'weir' : 5,
      );
      const when = each.make({ operands, count: 3, unit: 'day' });
      expect(kindOf(when).schema(Joi).validate(when).error, each.words[0]).toBeUndefined();
    }
  });

  test('no typed text throws, and a reported position lies within it', () => {
    const word = fc.constantFrom(
      'oxygen',
      'below',
      '5',
      'as',
      'alarm',
      'top',
      '10%',
      'of',
      'between',
      'and',
      '"',
      '(',
      '\\',
      '[',
      '%',
      'next',
      'days',
      'or',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(word).map((words) => words.join(' ')),
        ),
        (text) => {
          const reading = readPhrase(text, { fields: FIELDS });
          if (!('ideas' in reading)) expect(reading.at).toBeLessThanOrEqual(text.length);
          completePhrase(text, { fields: FIELDS });
        },
      ),
    );
  });
});

test('the examples that are documented are read', () => {
  const documented = readFileSync('docs/phrases.md', 'utf8');
  const examples = [.../^Examples: ([^]*?)\n\n/m.exec(documented)![1]!.matchAll(/`([^`]+)`/g)].map(
    ([, example]) => example!,
  );
  expect(examples.length).toBeGreaterThan(5);
  const fields = [...FIELDS, field('turbidity', 'Turbidity')];
  const selected = { fields: ['nitrate'], cells: 'C2:C9' };
  for (const example of examples) expect(readPhrase(example, { fields, selected }), example).toHaveProperty('ideas');
});
