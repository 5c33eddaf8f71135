import type { Page } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

const ROWS = [
  ['Clue', 'Key', 'Alder', 'Birch', 'Points'],
  ['Two tails', 'stonefly', 'stonefly', 'snail', '4'],
  ['Three tails', 'mayfly', 'mayflu', 'mayfly', '9'],
  ['A house of sand', 'cased caddis', '', 'cased caddis', '6'],
];

async function say(page: Page, cell: string, words: string): Promise<SheetPage> {
  const opened = new SheetPage(page);
  await opened.cell(cell).click();
  await opened.say(words);
  return opened;
}

test('rules are put in a group, shown to readers with their meaning, and folded; a rule moved into the group joins it', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  for (const words of ['points below 5 as alarm', 'points above 8 as clear', 'points is blank as quiet']) {
    await say(page, 'E2', words);
    if (words.includes('alarm')) {
      // Enter in a line of the bench saves.
      await sheet.bench.getByPlaceholder('Note: why it matters, what to do').fill('Talk it over together');
      await page.keyboard.press('Enter');
    }
    await sheet.leaveBench();
  }
  // The newest comes first: blank, above, below.
  await sheet.ruleMenu('Points is blank', 'Add to group…');
  await page.getByRole('textbox', { name: 'Group name' }).fill('Watched');
  await page.keyboard.press('Enter');
  await sheet.ruleMenu('Points is below 5', 'Add to group…');
  await page.getByRole('dialog').getByRole('button', { name: 'Watched', exact: true }).click();
  const group = sheet.legend.getByRole('button', { name: /^Watched/ });
  await expect(group).toHaveText(['Watched1 rule', 'Watched1 rule']);
  // The two stand apart, and so do their groups, until the one between goes last.
  await sheet.ruleMenu('Points is above 8', 'Move down');
  await expect(group).toHaveText(['Watched2 rules']);
  await sheet.ruleMenu('Points is above 8', 'Move up');
  await expect(group).toHaveText(['Watched3 rules']);
  await group.click();
  await expect(sheet.entry('Points is below 5')).toHaveCount(0);
  await group.click();
  await sheet.legend.getByRole('button', { name: 'Actions for the group Watched' }).click();
  await page.getByRole('menuitem', { name: 'Turn all off' }).click();
  await expect(sheet.cell('E2')).not.toHaveAttribute('data-rules');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(sheet.cell('E2')).toHaveAttribute('data-rules', 'Points is below 5');

  await sheet.legend.getByRole('button', { name: 'Actions for the legend' }).click();
  await page.getByRole('menuitem', { name: 'Preview as a reader' }).click();
  await expect(sheet.legend.getByRole('region', { name: 'Watched' }).getByRole('listitem')).toHaveCount(3);
  await expect(sheet.legend).toContainText('Talk it over together');
  await expect(sheet.legend.getByRole('button')).toHaveText(['Back to editing']);
  expect(await violations(page, (axe) => axe.include('nav'))).toEqual([]);
});

test('a rule is carried to another sheet: its formula finds the fields there by their labels', async ({ page }) => {
  const other = await makeSheet(page, [
    ['points', 'Who', 'needed'],
    ['7', 'Fern', '6'],
    ['3', 'Moss', '6'],
  ]);
  const id = await makeSheet(page, [
    ['Needed', 'Points'],
    ['6', '5'],
    ['6', '8'],
  ]);
  const sheet = await SheetPage.open(page, id);
  await sheet.beginRule('B2', /^Custom formula/);
  await sheet.bench.getByRole('textbox', { name: 'Formula' }).fill('=B2<A2');
  await sheet.bench.getByLabel('Name of the rule').fill('Too few');
  await sheet.keepRule();
  await sheet.ruleMenu('Too few', 'Copy to another sheet…');
  const dialog = page.getByRole('dialog', { name: 'Copy 1 rule to another sheet' });
  const { name } = ((await (await page.request.get('/api/sheets')).json()) as { id: string; name: string }[]).find(
    (each) => each.id === other,
  )!;
  await dialog.getByRole('button', { name: 'Station readings', exact: true }).click();
  await expect(dialog.getByRole('alert')).toContainText('Station readings has no field called “Points”');
  await dialog.getByRole('button', { name, exact: true }).click();
  await expect(page.getByRole('alert').filter({ hasText: name })).toContainText(`The rule was copied to ${name}`);
  const there = await SheetPage.open(page, other);
  await expect.poll(() => there.paintedBy('Too few', 'A', [2, 3])).toEqual(['A3']);
});

const rgb = (hex: string): string => `rgb(${[1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)).join(', ')})`;

test('an answer key is explained by group and by clue, and the printed page carries its legend', async ({
  page,
  context,
}) => {
  const id = await makeSheet(page, ROWS);
  const sheet = await SheetPage.open(page, id);
  await sheet.select('C2', 'D2');
  await page.keyboard.press('Alt+r');
  await page
    .getByRole('dialog', { name: 'New rule' })
    .getByRole('button', { name: /^Check answers against a key/ })
    .last()
    .click();
  await sheet.pick('Key', 'the record’s Key');
  await sheet.pick('Nearness', 'may be one letter off');
  const bars = sheet.bench.getByRole('list', { name: /^Answers by/ }).getByRole('listitem');
  const told = (label: string, [right, near, wrong, none]: readonly number[]) =>
    expect(bars.filter({ hasText: label })).toHaveAccessibleName(
      `${label}: right ${right}, nearly right ${near}, wrong ${wrong}, not yet answered ${none}`,
    );
  // Marked by hand from the answers above.
  await told('Alder', [1, 1, 0, 1]);
  await told('Birch', [2, 0, 1, 0]);
  await sheet.bench.getByText('By record').click();
  await expect(bars.first()).toHaveAccessibleName(/^Two tails: /);
  await told('Two tails', [1, 0, 1, 0]);
  await sheet.keepRule();

  await sheet.legend.getByRole('button', { name: 'Actions for the legend' }).click();
  const [paper] = await Promise.all([
    context.waitForEvent('page'),
    page.getByRole('menuitem', { name: 'Print or save as PDF…' }).click(),
  ]);
  const legend = paper.getByRole('region', { name: 'Legend' });
  for (const outcome of ['right (3)', 'nearly right (1)', 'wrong (1)']) await expect(legend).toContainText(outcome);
  const [saved] = await Promise.all([
    paper.waitForEvent('download'),
    paper.getByRole('button', { name: 'Save as a page' }).click(),
  ]);
  // The file stands alone: opened without the app and without scripts, its cells have the colours that they have on
  // screen.
  const file = readFileSync((await saved.path())!, 'utf8');
  expect(file).not.toMatch(/<script|https?:\/\/(?!www\.w3\.org)/);
  const fills = await Promise.all(['D2', 'D3'].map((cell) => sheet.cell(cell).getAttribute('data-fill')));
  await page.setContent(file);
  await expect(page.getByRole('region', { name: 'Legend' })).toContainText('wrong (1)');
  for (const [at, text] of ['snail', 'mayfly'].entries())
    await expect(page.getByRole('cell', { name: text }).last()).toHaveCSS('background-color', rgb(fills[at]!));
});

test('a bar that is pointed at lights its cells, and no others', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await say(page, 'E2', 'points below 5 as alarm');
  const bars = sheet.bench.locator('svg title', { hasText: /: 1 cell$/ }).locator('..');
  await bars.last().hover();
  await expect(sheet.cell('E2')).toHaveAttribute('data-faded', 'true');
  await expect(sheet.cell('E3')).not.toHaveAttribute('data-faded');
  await sheet.bench.getByLabel('Name of the rule').hover();
  await expect(sheet.cell('E2')).not.toHaveAttribute('data-faded');
});
