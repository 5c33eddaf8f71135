import { describe, expect, test } from 'vitest';
import { contrastRatio } from '../../../core/looks/contrast';
import { looksById, sheetLooks } from '../../../core/sheet/sheet-looks';
import { KINDS, KIND_NAMES } from '../../../core/rules/kinds/registry';
import type { Rule } from '../../../core/rules/shape/rule';
import { TOKENS } from '../../theme/tokens';
import { colorOfOutcome, outcomeColors } from './outcome-colors';

const rule = (more: Partial<Rule>): Rule => ({
  id: 'r',
  name: 'R',
  on: true,
  settles: false,
  reads: { fields: ['f1'] },
  when: { kind: 'state', is: 'blank' },
  paints: 'cell',
  ...more,
});
const light = { saved: looksById(sheetLooks([], 'light')), theme: 'light' as const };

describe('the colours of outcomes in a picture', () => {
  test('are those of the look: its fill with its text as the line, or the line of a look without a fill', () => {
    expect(outcomeColors(rule({ look: { look: 'alarm' } }), light)).toEqual([{ fill: '#f7d3c8', line: '#77200d' }]);
    expect(outcomeColors(rule({ look: { look: 'ringed' } }), light)).toEqual([{ fill: '#b4411f', line: '#b4411f' }]);
    expect(outcomeColors(rule({ look: { italic: true } }), light)).toEqual([
      { fill: TOKENS.light.ink, line: TOKENS.light.ink },
    ]);
  });

  test('are one for each band, none where it has no look', () => {
    const when = { kind: 'bands' as const, cuts: [5, 7], looks: [{ look: 'cool' }, null, { fill: '#123456' }] };
    expect(outcomeColors(rule({ when }), light)).toMatchObject([{ fill: '#d3e4f6' }, null, { fill: '#123456' }]);
  });

  test('go darker from icon to icon, and come round again where a palette is shorter than the values', () => {
    const icons = outcomeColors(rule({ when: { kind: 'icons', set: 'stars3', cuts: [{ at: 1 }, { at: 2 }] } }), light);
    expect(icons.map((each) => /(\d+)%/.exec(each!.fill)![1])).toEqual(['0', '30', '60']);
    const palette = outcomeColors(rule({ when: { kind: 'category', palette: ['#111111', '#222222'] } }), light);
    expect([0, 1, 2, -1].map((outcome) => colorOfOutcome(palette, outcome)?.fill)).toEqual([
      '#111111',
      '#222222',
      '#111111',
      undefined,
    ]);
  });

  test('there are some for every kind as it is begun, in either theme, and what stands for a match can be seen', () => {
    for (const theme of ['light', 'dark'] as const)
      for (const name of KIND_NAMES) {
        const when = KINDS[name].defaults({
          numbers: 9,
          least: 0,
          lowerQuartile: 2,
          median: 4,
          upperQuartile: 6,
          greatest: 8,
          commonText: 'weir',
        });
        const colors = outcomeColors(rule({ when, look: { look: 'alarm' } }), {
          saved: looksById(sheetLooks([], theme)),
          theme,
        });
        expect(
          colors.some((each) => each !== null),
          name,
        ).toBe(true);
        if (KINDS[name].outcomes === 'match')
          expect(contrastRatio(colors[0]!.line, colors[0]!.fill)).toBeGreaterThan(4.5);
      }
  });
});
