import { randomLcg, randomLogNormal } from 'd3-random';
import { itemAt } from '../core/values/item-at';
import type { NewSheet } from '../server/sheets/create-sheet';
import { demoSheet } from './demo-sheet';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const FIRST = ['Rosa', 'Emeka', 'Ines', 'Tomasz', 'Aoife', 'Kenji', 'Mira', 'Bram', 'Leila', 'Oskar', 'Noor', 'Pavel'];
const LAST = ['Calder', 'Okoro', 'Fenn', 'Vilar', 'Marsh', 'Ahlberg'];
const PEOPLE = 60;

/** Hours of sixty volunteers month by month. The same seed gives the same sheet. */
export function volunteerHours(seed = 20260401): NewSheet {
  const random = randomLcg(seed);
  const hours = randomLogNormal.source(random)(2.1, 0.6);
  const name = (at: number): string =>
    `${itemAt(FIRST, (at * 5 + Math.floor(at / 12)) % FIRST.length)} ${itemAt(LAST, (at * 7) % LAST.length)}`;
  const months = MONTHS.map((label) => ({ id: label.toLowerCase(), label, widthPx: 62, format: '0' }));
  const fields = months.map(({ id }) => id);
  return demoSheet({
    id: 'volunteer-hours',
    name: 'Volunteer hours',
    fields: [
      { id: 'person', label: 'Person', widthPx: 150 },
      ...months,
      { id: 'year', label: 'Year', widthPx: 72, format: '0' },
    ],
    rows: Array.from({ length: PEOPLE }, (_, at) => ({
      cells: {
        // Two people have the names of two others.
        person: name(at % (PEOPLE - 2)),
        ...Object.fromEntries(fields.flatMap((id) => (random() < 0.12 ? [] : [[id, hours().toFixed(0)]]))),
        year: `=SUM(B${at + 2}:M${at + 2})`,
      },
    })),
    rules: [
      {
        id: 'forty',
        name: 'Forty hours and more',
        reads: { fields },
        when: { kind: 'compare', is: '>=', to: 40 },
        paints: 'cell',
        look: { bold: true, border: { around: { style: 'solid', width: 2, color: '#2c3350' } } },
      },
      {
        id: 'busy-month',
        name: 'Well above the month',
        reads: { fields },
        when: { kind: 'average', is: 'above', deviations: 1, per: 'field' },
        paints: 'cell',
        look: { look: 'clear' },
      },
      {
        id: 'quiet-month',
        name: 'Below half the person’s month',
        reads: { fields },
        when: { kind: 'formula', formula: '=AND(B2<>"",B2<0.5*AVERAGE($B2:$M2))' },
        paints: 'cell',
        look: { look: 'quiet' },
      },
      {
        id: 'top',
        name: 'Top 10 of the year',
        reads: { fields: ['year'] },
        when: { kind: 'rank', is: 'top', n: 10 },
        paints: { fields: ['person', 'year'] },
        look: { look: 'cool' },
      },
      {
        id: 'twice',
        name: 'Name met twice',
        reads: { fields: ['person'] },
        when: { kind: 'repeat', is: 'repeated' },
        paints: 'cell',
        look: { look: 'ringed' },
      },
    ],
  });
}
