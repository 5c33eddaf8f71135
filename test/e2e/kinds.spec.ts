import { deviation, groups, mean, quantile, range, rollup, sort } from 'd3-array';
import { schemeBlues } from 'd3-scale-chromatic';
import { CREWS, OXYGEN, DUE, rows, where, openCrews, painted } from './crews-sheet';
import { expect, test } from './test';

// Which cells each kind paints is worked out here with d3-array, from the values as they are typed.
test('numbers: compare, average, rank, bands, scale, bar and icons paint the right cells', async ({ page }) => {
  const sheet = await openCrews(page);
  await sheet.beginRule('B2', /^Compare with a value/);
  await sheet.pick('Comparison', 'is between');
  await sheet.bench.getByRole('textbox', { name: 'One end' }).fill('5');
  await sheet.bench.getByRole('textbox', { name: 'Other end' }).fill('7');
  await painted(
    sheet,
    'B',
    where('B', (at) => OXYGEN[at]! >= 5 && OXYGEN[at]! <= 7),
  );

  await sheet.beginRule('B2', /^Above or below average/);
  await sheet.bench.getByRole('textbox', { name: 'Deviations' }).fill('1');
  await painted(
    sheet,
    'B',
    where('B', (at) => OXYGEN[at]! > mean(OXYGEN)! + deviation(OXYGEN)!),
  );

  await sheet.beginRule('B2', /^Top or bottom values/);
  await sheet.pick('End', 'least');
  await sheet.bench.getByRole('textbox', { name: 'How many' }).fill('25');
  await sheet.pick('Counted as', '% of the values');
  const order = sort(range(OXYGEN.length), (at) => OXYGEN[at]);
  await expect(sheet.bench.getByRole('list', { name: 'At the edge' }).getByRole('listitem')).toHaveText(
    order.slice(0, 4).map((at, place) => `${place + 1}${CREWS[at]!}${OXYGEN[at]}`),
  );
  await painted(
    sheet,
    'B',
    where('B', (at) => OXYGEN[at]! <= [...OXYGEN].sort((a, b) => a - b)[1]!),
  );

  await sheet.beginRule('B2', /^Sort into bands/);
  await sheet.bench.getByRole('textbox', { name: 'Cut 1' }).fill('5');
  await sheet.bench.getByRole('textbox', { name: 'Cut 2' }).fill('8');
  // Each band has a look; the middle one is left out here.
  await sheet.pickLook('Look of band 2', 'no look');
  await painted(
    sheet,
    'B',
    where('B', (at) => OXYGEN[at]! < 5 || OXYGEN[at]! >= 8),
  );

  await sheet.beginRule('B2', /^Colour scale/);
  await sheet.pick('Colours', 'pale to deep blue');
  // The least and the greatest have the ends of ColorBrewer's five blues.
  await expect(sheet.cell('B8')).toHaveAttribute('data-fill', schemeBlues[5]![0]!);
  await expect(sheet.cell('B3')).toHaveAttribute('data-fill', schemeBlues[5]![4]!);
  await painted(
    sheet,
    'B',
    where('B', () => true),
  );

  await sheet.beginRule('B2', /^Data bars/);
  await painted(
    sheet,
    'B',
    where('B', () => true),
  );

  await sheet.beginRule('B2', /^Icons/);
  await sheet.pick('Cut 1 is', 'the percentile');
  await sheet.bench.getByRole('textbox', { name: 'Cut 1' }).fill('25');
  const low = OXYGEN.filter((value) => value < quantile(OXYGEN, 0.25)!).length;
  await expect(sheet.bench.getByRole('list', { name: 'Icons' }).getByRole('listitem').first()).toContainText(
    `${low} cells`,
  );
  await painted(
    sheet,
    'B',
    where('B', () => true),
  );
});

test('texts, dates and states: words, repeats, categories, keys, days and blanks paint the right cells', async ({
  page,
}) => {
  const sheet = await openCrews(page);
  await sheet.beginRule('A2', /^Text contains/);
  await sheet.bench.getByRole('textbox', { name: 'Word' }).fill('moss');
  await sheet.bench.getByRole('button', { name: 'Another word' }).click();
  await sheet.bench.getByRole('textbox', { name: 'Word 2' }).fill('sedge');
  // One more word is what a cell holds: "Reed".
  await sheet.pick('Add a word from', 'what a cell holds');
  await sheet.bench.getByRole('textbox', { name: 'Word from elsewhere' }).fill('A5');
  await painted(
    sheet,
    'A',
    where('A', (at) => /moss|sedge|reed/i.test(CREWS[at]!)),
  );

  const met = rollup(
    CREWS,
    (all) => all.length,
    (crew) => crew.trim().toLowerCase(),
  );
  await sheet.beginRule('A2', /^Duplicate or unique values/);
  await painted(
    sheet,
    'A',
    where('A', (at) => met.get(CREWS[at]!.trim().toLowerCase())! > 1),
  );
  await sheet.beginRule('A2', /^Duplicate or unique values/);
  await sheet.pick('Test', 'is unique');
  await painted(
    sheet,
    'A',
    where('A', (at) => met.get(CREWS[at]!.trim().toLowerCase()) === 1),
  );

  await sheet.beginRule('A2', /^A look for each value/);
  const fills = await Promise.all(rows.map((row) => sheet.cell(`A${row}`).getAttribute('data-fill')));
  const kinds = groups(CREWS, (crew) => crew.trim().toLowerCase()).length;
  expect(new Set(fills).size).toBe(kinds);
  await painted(
    sheet,
    'A',
    where('A', () => true),
  );

  await sheet.beginRule('A2', /^Check answers against a key/);
  await sheet.pick('Key', 'these answers, the same everywhere');
  await sheet.bench.getByRole('textbox', { name: 'Answer' }).fill('Ferm');
  const outcomes = sheet.bench.getByRole('list', { name: 'Outcomes' }).getByRole('listitem');
  // Right, wrong and empty, unless a letter may be off.
  await expect(outcomes).toHaveCount(3);
  await sheet.pick('Nearness', 'may be one letter off');
  // One letter away from Fern, and Fern alone.
  await expect(outcomes.nth(2)).toContainText('3 cells');
  await expect(outcomes.nth(3)).toContainText('5 cells');
  await painted(
    sheet,
    'A',
    where('A', () => true),
  );

  await sheet.beginRule('D2', /^Dates/);
  await sheet.pick('Test', 'is in the next');
  await painted(
    sheet,
    'D',
    where('D', (at) => DUE[at]! >= 0 && DUE[at]! <= 6),
  );
  await sheet.beginRule('D2', /^Dates/);
  await sheet.pick('Test', 'is in the past');
  await painted(
    sheet,
    'D',
    where('D', (at) => DUE[at]! < 0),
  );

  await sheet.beginRule('E2', /^Blank, filled or error/);
  await painted(
    sheet,
    'E',
    where('E', (at) => at % 3 !== 0),
  );
});

test('what changed lately: by the log of the sheet, also from before the page was opened, and as it goes on', async ({
  page,
}) => {
  const sheet = await openCrews(page);
  // Row by row, what is typed after the first value; each cell is judged by its first value and its last.
  const typed: Readonly<Record<number, readonly string[]>> = { 2: ['4.4'], 3: ['12', '9.2'], 5: ['4.9'], 6: ['30'] };
  for (const [row, texts] of Object.entries(typed)) for (const text of texts) await sheet.type(`B${row}`, text);
  await sheet.isLive();
  await page.reload();
  const last = (row: number): number => Number(typed[row]?.at(-1) ?? OXYGEN[row - 2]);
  await sheet.beginRule('B2', /^Changed recently/);
  await sheet.pick('How much', 'by at least');
  await sheet.bench.getByRole('textbox', { name: 'Least change' }).fill('5%');
  await painted(
    sheet,
    'B',
    where('B', (at) => Math.abs(last(at + 2) - OXYGEN[at]!) >= 0.05 * OXYGEN[at]!),
  );
  await sheet.beginRule('B2', /^Changed recently/);
  await sheet.pick('Move', 'has risen');
  await sheet.bench.getByLabel('Name of the rule').fill('Risen');
  await sheet.keepRule();
  await expect.poll(() => sheet.paintedBy('Risen', 'B', rows)).toEqual(where('B', (at) => last(at + 2) > OXYGEN[at]!));
  await sheet.type('B4', '8');
  await expect.poll(() => sheet.paintedBy('Risen', 'B', [4])).toEqual(['B4']);
});
