import type { NewSheet } from '../server/sheets/create-sheet';
import { demoSheet } from './demo-sheet';

/** Clue, accepted answers, and what three groups have written so far. */
const CLUES: readonly (readonly [string, string, string, string, string])[] = [
  ['Two tails, and crawls under stones', 'stonefly | stone fly', 'stonefly', 'Stonefly', ''],
  ['Three tails, gills along its sides', 'mayfly | may fly', 'mayfly', 'dragonfly', 'mayflu'],
  ['Builds a house of sand and twigs', 'cased caddis | caddis', 'cased caddis', 'caddis', 'cased cadis'],
  ['No house, lives in a net it spins', 'caseless caddis', 'caseless caddis', 'cased caddis', ''],
  ['Swims on its side, curled', 'freshwater shrimp | shrimp', 'shrimp', 'shrmip', 'shrimp'],
  ['Three tails like feathers, burrows', 'mayfly | may fly', 'mayfly', 'mayfly', ''],
  ['Flat body, holds on where it is fast', 'flat-bodied mayfly', 'flat bodied mayfly', 'stonefly', ''],
  ['Looks like a small lobster', 'crayfish', 'crayfish', 'crayfish', 'crayfish'],
  ['How many legs has a riverfly larva?', '6', '6', '8', '6'],
  ['Least pH that most riverflies live in', '5.5', '5.5', '5.6', '7'],
  ['What do its gills take from the water?', 'oxygen', 'oxygen', 'oxigen', ''],
  ['Which season do most of them hatch in?', 'spring', 'spring', 'summer', ''],
];

/** A teacher's sheet: directions across all of it, twelve clues, an answer field for each group, and the key. */
export function riverflyCheck(): NewSheet {
  const groups = ['Alder', 'Birch', 'Cedar'] as const;
  return demoSheet({
    id: 'riverfly-check',
    name: 'Riverfly check',
    fields: [
      { id: 'clue', label: 'Clue', widthPx: 270 },
      ...groups.map((label) => ({ id: label.toLowerCase(), label, widthPx: 140 })),
      { id: 'key', label: 'Key', widthPx: 190 },
    ],
    above: [
      {
        role: 'title',
        cells: {
          clue: 'Which riverfly is it? Read the clue and write its name in the field of your group. Green is right, yellow is nearly right.',
        },
        about: { heightPx: 44, styles: { clue: { wrap: true, align: 'center', stand: 'middle', fill: '#f3ead7' } } },
      },
    ],
    parts: [
      { id: 'directions', kind: 'merge', top: 'r1', bottom: 'r1', left: 'clue', right: 'key' },
      {
        id: 'filling',
        kind: 'filling',
        open: groups.map((label) => label.toLowerCase()),
        openCells: [],
        kept: ['key'],
        outcomes: 'leaving',
        showsOthers: false,
      },
    ],
    rows: CLUES.map(([clue, key, alder, birch, cedar]) => ({ cells: { clue, key, alder, birch, cedar } })),
    rules: [
      {
        id: 'answers',
        name: 'Answers',
        note: 'Case and accents do not matter; one letter off is nearly right',
        reads: { fields: groups.map((label) => label.toLowerCase()) },
        when: {
          kind: 'key',
          expect: { field: 'key' },
          near: 1,
          tolerance: 0.1,
          looks: { right: { look: 'clear' }, near: { look: 'watch', italic: true }, wrong: { look: 'alarm' } },
        },
        paints: 'cell',
        trials: [],
      },
    ],
  });
}
