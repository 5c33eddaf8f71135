import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

test('an empty sheet says what to do first; commands are found by words; the desk shows the legend', async ({
  page,
}) => {
  const id = await makeSheet(page, [['']]);
  const sheet = await SheetPage.open(page, id);
  const steps = page.getByRole('region', { name: 'First steps' });
  await expect(steps.getByRole('button', { name: 'New rule' })).toHaveCount(0);
  // The cells are tested elsewhere.
  expect(await violations(page, (axe) => axe.include('[aria-label="First steps"]'))).toEqual([]);
  await sheet.typeAcross('A1', 'Station', 'Oxygen');
  await sheet.typeAcross('A2', 'Alder Weir', '4.2');
  await expect(steps.getByLabel('done')).toHaveCount(1);
  await steps.getByRole('button', { name: 'New rule' }).click();
  await page.getByRole('combobox', { name: 'Say it in words' }).fill('oxygen below 5 as alarm');
  await page.keyboard.press('Enter');
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#f7d3c8');
  await sheet.leaveBench();
  await expect(steps.getByLabel('done')).toHaveCount(2);
  await steps.getByRole('button', { name: 'Share' }).click();
  await expect(page.getByRole('dialog', { name: 'Share this sheet' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(steps).toHaveCount(0);

  // By words, in whatever order: actions, rules and fields.
  await page.keyboard.press('Control+k');
  const commands = page.getByRole('dialog', { name: 'Commands' });
  await page.keyboard.type('row totals');
  await expect(commands.getByRole('option')).toHaveText(['Totals row for all fields']);
  expect(await violations(page, (axe) => axe.include('[role=dialog]'))).toEqual([]);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(commands).toHaveCount(0);
  await expect(sheet.cell('B3')).toHaveText('4.2');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('below 5');
  await commands.getByRole('option', { name: 'Oxygen is below 5' }).click();
  await expect(sheet.bench.getByRole('textbox', { name: 'Threshold' })).toBeFocused();

  await page.goto('/');
  await page.getByLabel('Sort by').selectOption('name');
  await page.getByLabel('Search your sheets').fill('test');
  await expect(page.getByRole('link').filter({ hasText: 'Oxygen is below 5' }).first()).toBeVisible();
  await expect(page.getByRole('link', { name: /Station readings/ })).toHaveCount(0);
  expect(await violations(page, (axe) => axe.exclude('li:nth-child(n + 6)'))).toEqual([]);
});

test('a sheet begins with an example of a common job, with rules that work on what is typed', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Start from an example' }).click();
  const gallery = page.getByRole('region', { name: 'Examples' });
  await expect(gallery.getByRole('listitem')).toHaveCount(8);
  expect(await violations(page, (axe) => axe.include('[aria-label="Examples"]'))).toEqual([]);
  await expect(gallery.getByRole('table', { name: 'Due dates' }).getByRole('row')).toHaveCount(5);
  await gallery.getByRole('button', { name: 'Overdue and due soon' }).click();
  await page.waitForURL('**/sheets/*');
  const opened = new SheetPage(page);
  await expect(opened.legend.getByRole('listitem')).toHaveCount(2);
  await expect(opened.cell('C2')).toHaveAttribute('data-fill', '#f7d3c8');
  await expect(opened.cell('C3')).toHaveAttribute('data-fill', '#fde5ac');
  await opened.typeAcross('C4', '=TODAY()-1');
  await expect(opened.cell('C4')).toHaveAttribute('data-fill', '#f7d3c8');
});

test('a tour goes through the screen with the sheet’s own data, by keys alone', async ({ page }) => {
  const id = await makeSheet(page, [
    ['Station', 'Oxygen'],
    ['Alder Weir', '4'],
    ['Birch Ford', '8'],
  ]);
  const sheet = await SheetPage.open(page, id);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('tour');
  await page.getByRole('option', { name: 'Take the tour of this sheet' }).click();
  const tour = page.getByRole('dialog', { name: 'Tour' });
  await expect(tour).toContainText('your table of Station and Oxygen');
  await page.keyboard.press('Enter');
  await expect(tour).toContainText(/“oxygen below [\d.]+ as alarm”/);
  expect(await violations(page, (axe) => axe.include('[aria-label="Tour"]'))).toEqual([]);
  for (const words of ['in order of precedence', 'says why', 'Share the sheet']) {
    await page.keyboard.press('Enter');
    await expect(tour).toContainText(words);
  }
  await page.keyboard.press('Enter');
  await expect(tour).toHaveCount(0);
  await expect(sheet.grid).toBeFocused();
});
