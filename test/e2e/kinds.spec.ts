import AxeBuilder from '@axe-core/playwright';
import { deviation, groups, mean, quantile, range, rollup, sort } from 'd3-array';
import { schemeBlues } from 'd3-scale-chromatic';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

// Which cells each kind paints is worked out here with d3-array, from the values as they are typed.
const CREWS = ['Fern', 'Moss', 'Fern', 'Reed', 'moss ', 'Fern', 'Sedge', 'Reed'];
const OXYGEN = [4.1, 9.2, 7, 5, 8.8, 6.4, 3.9, 7.7];
const PLANNED = [5, 8, 7, 6, 8, 7, 6, 7];
const day = (away: number) => new Date(Date.now() + away * 86_400_000).toISOString().slice(0, 10);
const DUE = [-3, 0, 2, 30, 6, -40, 1, 400];
const ROWS = [
  ['Crew', 'Oxygen', 'Planned', 'Due', 'Note'],
  ...CREWS.map((crew, at) => [crew, String(OXYGEN[at]), String(PLANNED[at]), day(DUE[at]!), at % 3 ? '' : 'seen']),
];
const rows = CREWS.map((_, at) => at + 2);
const where = (column: string, holds: (at: number) => boolean) =>
  rows.filter((_, at) => holds(at)).map((row) => `${column}${row}`);

async function open(page: Parameters<typeof makeSheet>[0]): Promise<SheetPage> {
  return SheetPage.open(page, await makeSheet(page, ROWS));
}

/** Names the rule on the bench, and gives the cells of a column that it paints. */
async function painted(sheet: SheetPage, column: string, expected: readonly string[]): Promise<void> {
  await sheet.bench.getByLabel('Name of the rule').fill('Tried');
  await expect.poll(() => sheet.paintedBy('Tried', column, rows)).toEqual(expected);
  await sheet.page.keyboard.press('Escape');
  await expect(sheet.bench).toBeHidden();
}

test('numbers: compare, average, rank, bands, scale, bar and icons paint the right cells', async ({ page }) => {
  const sheet = await open(page);
  await sheet.beginRule('B2', /^Compare with a value/);
  await sheet.pick('Comparison', 'is between');
  await sheet.bench.getByRole('textbox', { name: 'One end' }).fill('5');
  await sheet.bench.getByRole('textbox', { name: 'Other end' }).fill('7');
  await painted(
    sheet,
    'B',
    where('B', (at) => OXYGEN[at]! >= 5 && OXYGEN[at]! <= 7),
  );

  await sheet.beginRule('B2', /^Compare with the average/);
  await sheet.bench.getByRole('textbox', { name: 'Deviations' }).fill('1');
  await painted(
    sheet,
    'B',
    where('B', (at) => OXYGEN[at]! > mean(OXYGEN)! + deviation(OXYGEN)!),
  );

  await sheet.beginRule('B2', /^Find the greatest or least/);
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
  await painted(
    sheet,
    'B',
    where('B', (at) => OXYGEN[at]! < 5 || OXYGEN[at]! >= 8),
  );

  await sheet.beginRule('B2', /^Shade from low to high/);
  await sheet.pick('Colours', 'pale to deep blue');
  // The least and the greatest have the ends of ColorBrewer's five blues.
  await expect(sheet.cell('B8')).toHaveAttribute('data-fill', schemeBlues[5]![0]!);
  await expect(sheet.cell('B3')).toHaveAttribute('data-fill', schemeBlues[5]![4]!);
  await painted(
    sheet,
    'B',
    where('B', () => true),
  );

  await sheet.beginRule('B2', /^Draw a bar in each cell/);
  await painted(
    sheet,
    'B',
    where('B', () => true),
  );

  await sheet.beginRule('B2', /^Put an icon beside each value/);
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
  const sheet = await open(page);
  await sheet.beginRule('A2', /^Look for words/);
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
  await sheet.beginRule('A2', /^Find what repeats/);
  await painted(
    sheet,
    'A',
    where('A', (at) => met.get(CREWS[at]!.trim().toLowerCase())! > 1),
  );
  await sheet.beginRule('A2', /^Find what repeats/);
  await sheet.pick('Test', 'is met only once');
  await painted(
    sheet,
    'A',
    where('A', (at) => met.get(CREWS[at]!.trim().toLowerCase()) === 1),
  );

  await sheet.beginRule('A2', /^Give each value its own look/);
  const fills = await Promise.all(rows.map((row) => sheet.cell(`A${row}`).getAttribute('data-fill')));
  const kinds = groups(CREWS, (crew) => crew.trim().toLowerCase()).length;
  expect(new Set(fills).size).toBe(kinds);
  await painted(
    sheet,
    'A',
    where('A', () => true),
  );

  await sheet.beginRule('A2', /^Check answers against a key/);
  await sheet.pick('Key', 'these answers, everywhere the same');
  await sheet.bench.getByRole('textbox', { name: 'Answer' }).fill('Ferm');
  const outcomes = sheet.bench.getByRole('list', { name: 'Outcomes' }).getByRole('listitem');
  // One letter away from Fern, and Fern alone.
  await expect(outcomes.nth(2)).toContainText('3 cells');
  await expect(outcomes.nth(3)).toContainText('5 cells');
  await painted(
    sheet,
    'A',
    where('A', () => true),
  );

  await sheet.beginRule('D2', /^Judge dates by today/);
  await sheet.pick('Test', 'is in the next');
  await painted(
    sheet,
    'D',
    where('D', (at) => DUE[at]! >= 0 && DUE[at]! <= 6),
  );
  await sheet.beginRule('D2', /^Judge dates by today/);
  await sheet.pick('Test', 'is in the past');
  await painted(
    sheet,
    'D',
    where('D', (at) => DUE[at]! < 0),
  );

  await sheet.beginRule('E2', /^Look for what is blank/);
  await painted(
    sheet,
    'E',
    where('E', (at) => at % 3 !== 0),
  );
});

test('what changed lately: by the log of the sheet, also from before the page was opened, and as it goes on', async ({
  page,
}) => {
  const sheet = await open(page);
  // Row by row, what is typed after the first value; each cell is judged by its first value and its last.
  const typed: Readonly<Record<number, readonly string[]>> = { 2: ['4.4'], 3: ['12', '9.2'], 5: ['4.9'], 6: ['30'] };
  for (const [row, texts] of Object.entries(typed)) for (const text of texts) await sheet.type(`B${row}`, text);
  await sheet.isLive();
  await page.reload();
  const last = (row: number): number => Number(typed[row]?.at(-1) ?? OXYGEN[row - 2]);
  await sheet.beginRule('B2', /^Show what changed lately/);
  await sheet.pick('How much', 'by at least');
  await sheet.bench.getByRole('textbox', { name: 'Least change' }).fill('5%');
  await painted(
    sheet,
    'B',
    where('B', (at) => Math.abs(last(at + 2) - OXYGEN[at]!) >= 0.05 * OXYGEN[at]!),
  );
  await sheet.beginRule('B2', /^Show what changed lately/);
  await sheet.pick('Move', 'has risen');
  await sheet.bench.getByLabel('Name of the rule').fill('Risen');
  await sheet.keepRule();
  await expect.poll(() => sheet.paintedBy('Risen', 'B', rows)).toEqual(where('B', (at) => last(at + 2) > OXYGEN[at]!));
  await sheet.type('B4', '8');
  await expect.poll(() => sheet.paintedBy('Risen', 'B', [4])).toEqual(['B4']);
});

test('a formula: an error has its place, how it reads elsewhere is shown, a cell is pointed at', async ({ page }) => {
  const sheet = await open(page);
  await sheet.beginRule('B2', /^Write a formula/);
  const formula = sheet.bench.getByRole('textbox', { name: 'Formula' });
  await formula.fill('=B2<C2*');
  await expect(sheet.bench.getByRole('alert')).toContainText('character');
  await formula.fill('=B2<C2');
  const readings = sheet.bench.getByRole('table', { name: 'How it reads' });
  await expect(readings).toContainText('=B3<C3');
  await expect(readings).toContainText('=B61<C61');
  await formula.press('End');
  await formula.pressSequentially('-');
  await sheet.cell('C3').click();
  await expect(formula).toHaveText('=B2<C2-C3');
  await formula.fill('=B2<C2');
  // The trial column says of each record what the formula gives there.
  const verdicts = OXYGEN.map((value, at) => (value < PLANNED[at]! ? 'TRUE' : 'FALSE'));
  await expect(page.locator('[data-trial]').filter({ hasText: /TRUE|FALSE/ })).toHaveText(
    [...verdicts, ...Array<string>(52).fill('FALSE')].slice(0, await page.locator('[data-trial]').count()),
  );
  await painted(
    sheet,
    'B',
    where('B', (at) => OXYGEN[at]! < PLANNED[at]!),
  );
});

test('a threshold is read from a cell and follows it; a rule made before there are values works once they come', async ({
  page,
}) => {
  const sheet = await open(page);
  await sheet.type('E3', '5');
  await sheet.beginRule('B2', /^Compare with a value/);
  await sheet.pick('Threshold is', 'what a cell holds');
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).focus();
  await sheet.cell('E3').click();
  await expect(sheet.bench.getByRole('textbox', { name: 'Threshold' })).toHaveValue('E3');
  await sheet.bench.getByLabel('Name of the rule').fill('Low');
  await sheet.keepRule();
  await expect.poll(() => sheet.paintedBy('Low', 'B', rows)).toEqual(where('B', (at) => OXYGEN[at]! < 5));
  await sheet.type('E3', '8');
  await expect.poll(() => sheet.paintedBy('Low', 'B', rows)).toEqual(where('B', (at) => OXYGEN[at]! < 8));

  await sheet.beginRule('F2', /^Compare with a value/);
  await sheet.bench.getByLabel('Name of the rule').fill('Early');
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill('3');
  await expect(sheet.bench).toContainText('the rule waits for values');
  await sheet.keepRule();
  await expect(sheet.count('Early')).toHaveText(/^0 of/);
  await sheet.typeDown('F2', '2', '3');
  await expect.poll(() => sheet.paintedBy('Early', 'F', rows)).toEqual(['F2']);
});

test('a rule is typed in words, tried on a value, noted, and carried to another field with its formula moving along', async ({
  page,
}) => {
  const sheet = await open(page);
  await sheet.cell('B2').click();
  await page.keyboard.press('Alt+r');
  const words = page.getByRole('combobox', { name: 'Say it in words' });
  await words.fill('whole record where oxy');
  await expect(page.getByRole('option', { name: 'whole record where Oxygen' })).toBeVisible();
  await words.fill('oxygen somehow 5');
  await page.keyboard.press('Enter');
  await expect(page.getByText('“oxygen” is understood')).toBeVisible();
  await words.fill('whole record where oxygen below 5 as alarm');
  await page.keyboard.press('Enter');
  await expect(sheet.cell('A2')).toHaveAttribute('data-fill', '#f7d3c8');
  await sheet.bench.getByLabel('A value to try').fill('4.9');
  await expect(sheet.bench.getByRole('group', { name: 'Trials' })).toContainText('is painted; Enter keeps it');
  await page.keyboard.press('Enter');
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill('4');
  await expect(sheet.bench.getByRole('group', { name: 'Trials' })).toContainText('fails, it is not painted');
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill('5');
  await sheet.bench.getByLabel('Note for readers').fill('Fish leave the water');
  await sheet.keepRule();
  await expect(sheet.entry('Oxygen is below 5')).toContainText('Fish leave the water');

  await sheet.beginRule('B2', /^Write a formula/);
  await sheet.bench.getByRole('textbox', { name: 'Formula' }).fill('=B2>7');
  await sheet.bench.getByLabel('Name of the rule').fill('High');
  await sheet.keepRule();
  await sheet.cell('C2').click();
  await sheet.ruleMenu('High', 'Carry to the selected cells');
  await expect.poll(() => sheet.paintedBy('High (Planned)', 'C', rows)).toEqual(where('C', (at) => PLANNED[at]! > 7));
});

test('a rule that never shows is named by the advice and in the trace, and repaired by one click', async ({ page }) => {
  const sheet = await open(page);
  for (const [name, limit, look] of [
    ['Very low', '5', 'Alarm'],
    ['Low', '8', 'Watch'],
  ] as const) {
    await sheet.beginRule('B2', /^Compare with a value/);
    await sheet.bench.getByLabel('Name of the rule').fill(name);
    await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill(limit);
    await sheet.pickLook('Look', look);
    // Bold too, so that the wider rule takes every property.
    if (name === 'Low') {
      await sheet.bench.getByRole('button', { name: 'Look:' }).click();
      await page.getByRole('dialog', { name: 'Look' }).getByRole('button', { name: 'Bold' }).click();
      await page.keyboard.press('Escape');
    }
    await sheet.keepRule();
  }
  await sheet.cell('B2').click();
  await page.getByRole('button', { name: /^Why this cell looks so/ }).click();
  await expect(page.getByRole('list', { name: 'Trace' })).toContainText('“Low” comes first for its fill');
  expect(
    (await new AxeBuilder({ page }).exclude('[role=grid]').analyze()).violations.map(
      ({ id, nodes }) => `${id}: ${nodes[0]!.html}`,
    ),
  ).toEqual([]);
  await page.keyboard.press('Escape');
  await sheet.legend.getByRole('button', { name: /^Advice/ }).click();
  const advice = page.getByRole('dialog', { name: 'Advice' });
  const finding = advice.getByRole('listitem').filter({ hasText: '“Very low” is never seen' });
  const { violations } = await new AxeBuilder({ page }).exclude('[role=grid]').analyze();
  expect(violations.map(({ id, nodes }) => `${id}: ${nodes[0]!.html}`)).toEqual([]);
  await finding.getByRole('button', { name: 'Mend it' }).click();
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#f7d3c8');
  await expect(finding).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#fde5ac');
  await sheet.legend.getByRole('button', { name: /^Advice/ }).click();
  await finding.getByRole('button', { name: 'Dismiss' }).click();
  await page.getByLabel('Why it does not matter here').fill('on purpose');
  await page.keyboard.press('Enter');
  await expect(finding).toHaveCount(0);
});

test('a look is changed, saved under a name, renamed, and changed everywhere at once', async ({ page }) => {
  const sheet = await open(page);
  for (const limit of ['5', '8']) {
    await sheet.beginRule('B2', /^Compare with a value/);
    await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill(limit);
    await sheet.keepRule();
  }
  await sheet.openRule('Oxygen is below 5');
  const look = page.getByRole('dialog', { name: 'Look' });
  await sheet.bench.getByRole('button', { name: 'Look:' }).click();
  await look.getByRole('button', { name: 'Bold' }).click();
  await expect(sheet.cell('B8')).toHaveAttribute('data-bold', 'true');
  await look.getByLabel('Name of the new look').fill('Heavy');
  await look.getByRole('button', { name: 'Save', exact: true }).click();
  await look.getByLabel('Another name for Heavy').fill('Weighty');
  await look.getByRole('button', { name: 'Rename' }).click();
  await expect(sheet.bench.getByRole('button', { name: 'Look: Weighty' })).toBeVisible();
  await look.getByRole('button', { name: 'Watch', exact: true }).click();
  await look.getByRole('button', { name: 'Fill:' }).click();
  await page.getByRole('menuitem', { name: 'see-through' }).click();
  await look.getByRole('button', { name: 'Change Watch everywhere' }).click();
  // Both rules have that look; the other one was never opened.
  await page.keyboard.press('Escape');
  await expect(sheet.cell('B9')).toHaveAttribute('data-fill', 'mixed');
  await expect(sheet.cell('B8')).toHaveAttribute('data-fill', 'mixed');
});

test('by keys alone: a rule is made, kept, another begun on the same cells, both put in order and removed', async ({
  page,
}) => {
  const sheet = await open(page);
  await sheet.cell('B2').click();
  await page.keyboard.press('Alt+r');
  await expect(page.getByRole('combobox', { name: 'Say it in words' })).toBeFocused();
  await page.keyboard.type('oxygen below 5 as alarm');
  await page.keyboard.press('Enter');
  await expect(sheet.bench).toBeVisible();
  await page.keyboard.press('Control+Shift+Enter');
  await expect(sheet.legend.getByRole('listitem')).toHaveCount(2);
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill('8');
  await page.keyboard.press('Control+Enter');
  await page.keyboard.press('Escape');
  // Kept after its sibling: the narrower one still wins.
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#f7d3c8');
  await sheet.legend.getByRole('button', { name: /^Move Oxygen is below 8/ }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(150);
  await page.keyboard.press('ArrowUp');
  await page.waitForTimeout(150);
  await page.keyboard.press('Space');
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#fde5ac');
  for (const left of [1, 0]) {
    await sheet.legend
      .getByRole('button', { name: /^What to do with Oxygen/ })
      .first()
      .focus();
    await page.keyboard.press('Enter');
    const remove = page.getByRole('menuitem', { name: 'Remove', exact: true });
    await expect(remove).toBeVisible();
    // The menu takes the keys once it has the focus.
    await expect(async () => {
      await page.keyboard.press('ArrowUp');
      await expect(remove).toBeFocused({ timeout: 500 });
    }).toPass();
    await page.keyboard.press('Enter');
    await expect(sheet.legend.getByRole('listitem')).toHaveCount(left);
  }
});
