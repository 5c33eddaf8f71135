import type { Rule } from '../core/rules/shape/rule';

const rule = (given: Omit<Rule, 'on' | 'settles'> & Partial<Rule>): Rule => ({ on: true, settles: false, ...given });

/** The six rules of "Station readings", in order of precedence. */
export const stationRules: readonly Rule[] = [
  rule({
    id: 'practice',
    name: 'Practice sample',
    settles: true,
    reads: { fields: ['crew'] },
    when: { kind: 'compare', is: '=', to: 'practice' },
    paints: 'record',
    look: { look: 'quiet', italic: true },
  }),
  rule({
    id: 'low-oxygen',
    name: 'Low oxygen',
    reads: { fields: ['oxygen'] },
    when: { kind: 'compare', is: '<', to: 7 },
    paints: 'cell',
    look: { look: 'alarm' },
    trials: [
      { value: 6.9, expect: true },
      { value: 7, expect: false },
      { value: 'sensor error', expect: false },
    ],
  }),
  rule({
    id: 'bathing',
    name: 'Unfit for bathing',
    // 1,000 per 100 mL: "good" quality of inland bathing waters, Directive 2006/7/EC, Annex I.
    reads: { fields: ['ecoli'] },
    when: { kind: 'compare', is: '>', to: 1000 },
    paints: { fields: ['station', 'ecoli'] },
    look: { look: 'plum' },
  }),
  rule({
    id: 'acidity',
    name: 'pH out of range',
    // 6.5 to 9.0: the range of freshwater criteria.
    reads: { fields: ['ph'] },
    when: {
      kind: 'bands',
      cuts: [6.5, 7, 8.5, 9],
      looks: [{ look: 'alarm' }, { look: 'watch' }, null, { look: 'cool' }, { look: 'ink' }],
      names: ['acid', 'a little acid', 'fit', 'a little alkaline', 'alkaline'],
    },
    paints: 'cell',
  }),
  rule({
    id: 'cloudy',
    name: 'Cloudy for its station',
    reads: { fields: ['turbidity'] },
    when: { kind: 'average', is: 'above', deviations: 1.5, per: { group: 'station' } },
    paints: 'cell',
    look: { look: 'watch' },
  }),
  rule({
    id: 'healthy',
    name: 'Well aerated',
    reads: { fields: ['saturation'] },
    when: { kind: 'compare', is: 'between', to: [0.95, 1.1] },
    paints: 'cell',
    look: { look: 'clear' },
  }),
];
