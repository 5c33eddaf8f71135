import { OXYGEN, PLANNED, rows, where, openCrews, painted } from './crews-sheet';
import { expect, test } from './test';
import { violations } from './violations';

test('a formula: an error has its place, how it reads elsewhere is shown, a cell is pointed at', async ({ page }) => {
  const sheet = await openCrews(page);
  await sheet.beginRule('B2', /^Custom formula/);
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
  const sheet = await openCrews(page);
  await sheet.type('E3', '5');
  await sheet.beginRule('B2', /^Compare with a value/);
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill('6.5');
  await sheet.pick('Threshold is', 'what a cell holds');
  // What was chosen is entered next: a cell is pointed at.
  await expect(sheet.bench.getByRole('textbox', { name: 'Threshold' })).toBeFocused();
  await sheet.cell('E3').click();
  await expect(sheet.bench.getByRole('textbox', { name: 'Threshold' })).toHaveValue('E3');
  // The value that stood there comes back.
  await sheet.pick('Threshold is', 'a value');
  await expect(sheet.bench.getByRole('textbox', { name: 'Threshold' })).toHaveValue('6.5');
  await expect(sheet.bench.getByRole('textbox', { name: 'Threshold' })).toBeFocused();
  await sheet.pick('Threshold is', 'what a cell holds');
  await sheet.cell('E3').click();
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
  const sheet = await openCrews(page);
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
  await expect(sheet.bench.getByRole('group', { name: 'Trials' })).toContainText(
    'is painted; press Enter to keep the example',
  );
  await page.keyboard.press('Enter');
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill('4');
  await expect(sheet.bench.getByRole('group', { name: 'Trials' })).toContainText('fails, it is not painted');
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill('5');
  await sheet.bench.getByLabel('Note for readers').fill('Fish leave the water');
  await page.keyboard.press('Enter');
  await sheet.leaveBench();
  await expect(sheet.entry('Oxygen is below 5')).toContainText('Fish leave the water');

  await sheet.beginRule('B2', /^Custom formula/);
  await sheet.bench.getByRole('textbox', { name: 'Formula' }).fill('=B2>7');
  await sheet.bench.getByLabel('Name of the rule').fill('High');
  await sheet.keepRule();
  await sheet.cell('C2').click();
  await sheet.ruleMenu('High', 'Copy to the selected cells');
  await expect.poll(() => sheet.paintedBy('High (Planned)', 'C', rows)).toEqual(where('C', (at) => PLANNED[at]! > 7));
});

test('a rule that never shows is named by the advice and in the trace, and repaired by one click', async ({ page }) => {
  const sheet = await openCrews(page);
  await sheet.cell('B2').click();
  await sheet.say('oxygen below 8 as watch, below 5 as alarm');
  await page.getByRole('button', { name: /^Why this cell looks so/ }).click();
  await expect(page.getByRole('list', { name: 'Trace' })).toContainText('“Oxygen is below 8” comes first for its fill');
  expect(await violations(page, (axe) => axe.exclude('[role=grid]'))).toEqual([]);
  await page.keyboard.press('Escape');
  await sheet.legend.getByRole('button', { name: /^Advice/ }).click();
  const advice = page.getByRole('dialog', { name: 'Advice' });
  const finding = advice.getByRole('listitem').filter({ hasText: '“Oxygen is below 5” is never seen' });
  expect(await violations(page, (axe) => axe.exclude('[role=grid]'))).toEqual([]);
  await finding.getByRole('button', { name: 'Fix it' }).click();
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
  const sheet = await openCrews(page);
  await sheet.cell('B2').click();
  await sheet.say('oxygen below 5 as watch, below 8 as watch');
  await sheet.openRule('Oxygen is below 5');
  const look = page.getByRole('dialog', { name: 'Look' });
  await sheet.bench.getByRole('button', { name: 'Look:' }).click();
  await look.getByRole('button', { name: 'Bold' }).click();
  await expect(sheet.cell('B8')).toHaveAttribute('data-bold', 'true');
  await look.getByLabel('Name of the new look').fill('Heavy');
  await look.getByRole('button', { name: 'Save', exact: true }).click();
  await look.getByLabel('New name for Heavy').fill('Weighty');
  await look.getByRole('button', { name: 'Rename' }).click();
  await expect(sheet.bench.getByRole('button', { name: 'Look: Weighty' })).toBeVisible();
  await look.getByRole('button', { name: 'Watch', exact: true }).click();
  await look.getByRole('button', { name: 'Fill:' }).click();
  await page.getByRole('menuitem', { name: 'translucent' }).click();
  await look.getByRole('button', { name: 'Change Watch everywhere' }).click();
  // Both rules have that look; the other one was never opened.
  await page.keyboard.press('Escape');
  await expect(sheet.cell('B9')).toHaveAttribute('data-fill', 'mixed');
  await expect(sheet.cell('B8')).toHaveAttribute('data-fill', 'mixed');
});

test('by keys alone: a rule is made, kept, another begun on the same cells, both put in order and removed', async ({
  page,
}) => {
  const sheet = await openCrews(page);
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
      .getByRole('button', { name: /^Actions for Oxygen/ })
      .first()
      .focus();
    await page.keyboard.press('Enter');
    const remove = page.getByRole('menuitem', { name: 'Delete', exact: true });
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

test('a rule that was not kept is a draft, also after the sheet was left', async ({ page }) => {
  const sheet = await openCrews(page);
  await sheet.beginRule('B2', /^Compare with a value/);
  await sheet.bench.getByLabel('Name of the rule').fill('Low');
  await page.keyboard.press('Escape');
  await expect(sheet.bench).toBeHidden();
  await expect(sheet.legend.getByRole('button', { name: 'Drafts (1)' })).toBeVisible();
  await page.reload();
  await sheet.isLive();
  await sheet.legend.getByRole('button', { name: 'Drafts (1)' }).click();
  await page.getByRole('menuitem', { name: 'Low' }).click();
  await expect(sheet.bench.getByLabel('Name of the rule')).toHaveValue('Low');
  await sheet.keepRule();
  await expect(sheet.entry('Low')).toBeVisible();
  await expect(sheet.legend.getByRole('button', { name: /^Drafts/ })).toHaveCount(0);
});
