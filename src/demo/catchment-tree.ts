import type { NewSheet } from '../server/sheets/create-sheet';
import { demoSheet, type DemoRow } from './demo-sheet';

/** Depth, name, condition in words, riverflies counted, and the count hoped for. Groups have no counts of their own. */
const TREE: readonly (readonly [0 | 1 | 2, string, string, string, string])[] = [
  [0, 'Wrenfold', 'moderate', '', ''],
  [1, 'Headwater', 'good', '', ''],
  [2, 'Wren Spring', 'high', '41', '30'],
  [2, 'Alder Weir', 'good', '28', '30'],
  [2, 'Birch Ford', 'good', '33', '30'],
  [1, 'Upper', 'good', '', ''],
  [2, 'Cedar Sluice', 'good', '26', '25'],
  [2, 'Dipper Bridge', 'moderate', '19', '25'],
  [2, 'Elm Pool', '', '', '25'],
  [1, 'Middle', 'poor', '', ''],
  [2, 'Fold Meadow', 'moderate', '14', '20'],
  [2, 'Grange Outfall', 'bad', '3', '20'],
  [2, 'Heron Island', 'poor', '9', '20'],
  [1, 'Lower', 'moderate', '', ''],
  [2, 'Ivy Lock', 'moderate', '16', '20'],
  [2, 'Jetty Reach', 'poor', '8', '20'],
];

/** The river from its catchment to its sites, with a condition in words for each. */
export function catchmentTree(): NewSheet {
  return demoSheet({
    id: 'catchment-tree',
    name: 'Catchment tree',
    fields: [
      { id: 'place', label: 'Place', widthPx: 200 },
      { id: 'condition', label: 'Condition', widthPx: 120, allowed: ['high', 'good', 'moderate', 'poor', 'bad'] },
      { id: 'count', label: 'Riverflies', widthPx: 100, format: '0' },
      { id: 'hoped', label: 'Hoped for', widthPx: 100, format: '0' },
    ],
    rows: TREE.map(([level, place, condition, count, hoped]): DemoRow => ({
      role: level < 2 ? 'group' : 'record',
      cells: { place, condition, count, hoped },
      about: { level, ...(level < 2 ? { style: { bold: true } } : {}) },
    })),
    rules: [
      {
        id: 'condition',
        name: 'Condition',
        reads: { fields: ['condition'], roles: ['group', 'record'] },
        when: {
          kind: 'category',
          looks: {
            high: { look: 'cool' },
            good: { look: 'clear' },
            moderate: { look: 'watch' },
            poor: { look: 'plum' },
            bad: { look: 'alarm' },
          },
        },
        paints: 'cell',
      },
      {
        id: 'short',
        name: 'Half of what was hoped for, or less',
        note: 'A visit by two people, soon',
        reads: { fields: ['count'] },
        when: { kind: 'compare', is: '<=', to: { field: 'hoped', times: 0.5 } },
        paints: 'record',
        look: { text: '#77200d', bold: true },
      },
      {
        id: 'not-judged',
        name: 'Not judged yet',
        reads: { fields: ['condition'], roles: ['group', 'record'] },
        when: { kind: 'state', is: 'blank' },
        paints: 'cell',
        look: { fill: { pattern: 'diagonal', color: '#c9c1b2' } },
      },
    ],
  });
}
