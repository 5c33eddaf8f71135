import type AxeBuilder from '@axe-core/playwright';
import { devices } from '@playwright/test';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

const phone = {
  viewport: { width: 390, height: 844 },
  hasTouch: true,
  isMobile: true,
  userAgent: devices['Pixel 7'].userAgent,
};

test('the desk lists the sheets, makes one, and says when a name is missing', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('link', { name: /Station readings.*480 records.*6 rules/ })).toBeVisible();
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByText('Give the sheet a name')).toBeVisible();
  await page.getByLabel('New sheet').fill('Pond survey');
  await page.getByRole('button', { name: 'Create' }).click();
  await expect(page.getByRole('heading', { name: 'Pond survey' })).toBeVisible();
  const opened = new SheetPage(page);
  await opened.isLive();
  await opened.type('A1', 'Pond');
  await expect(opened.cell('A1')).toHaveRole('columnheader');
  await expect(opened.legend).toContainText('No rules yet');
});

test('a sheet is given another name, and removed for good once that is meant', async ({ page }) => {
  const { id } = (await (await page.request.post('/api/sheets', { data: { name: 'Summer sampling' } })).json()) as {
    id: string;
  };
  await page.goto('/');
  const menu = (name: string) => page.getByRole('button', { name: `Actions for ${name}` });
  await menu('Summer sampling').click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel('Name', { exact: true }).fill('  ');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByText('Give the sheet a name')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('Autumn sampling');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('link', { name: /Autumn sampling/ })).toBeVisible();
  await menu('Autumn sampling').click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('link', { name: /Autumn sampling/ })).toBeVisible();
  await menu('Autumn sampling').click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await page.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByRole('link', { name: /Autumn sampling/ })).toHaveCount(0);
  expect((await page.request.get(`/api/sheets/${id}/packed`)).status()).toBe(404);
  expect((await page.request.delete(`/api/sheets/${id}`)).status()).toBe(404);
  expect((await page.request.patch(`/api/sheets/${id}`, { data: { name: 'x' } })).status()).toBe(404);
});

test('a sheet that does not exist says so', async ({ page }) => {
  await page.goto('/sheets/nowhere');
  await expect(page.getByRole('heading', { name: 'There is nothing here' })).toBeVisible();
});

test('no accessibility violations are found, light or dark', async ({ page }) => {
  // Every screen is gone through, twice.
  test.slow();
  // Cells are all alike: a smaller view has fewer of them to go through.
  await page.setViewportSize({ width: 1000, height: 640 });
  const checked = async (what: string, narrow = (axe: AxeBuilder) => axe) => {
    for (const scheme of ['dark', 'light'] as const) {
      await page.emulateMedia({ colorScheme: scheme });
      await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', scheme);
      // All but the contrast is the same in either colours.
      const contrast = (axe: AxeBuilder) => narrow(axe).withRules(['color-contrast']);
      expect(await violations(page, scheme === 'light' ? narrow : contrast), `${what}, ${scheme}`).toEqual([]);
    }
  };
  for (const path of ['/', '/account', '/outbox', '/findings', '/sheets/riverfly-check/findings']) {
    await page.goto(path);
    // The sheets of other tests, and the later items of a list, are like the first ones.
    if (path === '/') await page.getByLabel('Search your sheets').fill('riverfly');
    await checked(path, (axe) => axe.exclude('li:nth-child(n + 6)'));
  }
  await SheetPage.open(page, 'riverfly-check');
  await page.getByRole('button', { name: 'Share' }).click();
  for (const tab of ['People', 'Links', 'Filling in']) {
    await page.getByRole('tab', { name: tab }).click();
    // The banner of a dialog does not count as a second banner of the page.
    await checked(tab, (axe) =>
      axe.include('[role=dialog]').options({ rules: { 'landmark-no-duplicate-banner': { enabled: false } } }),
    );
  }
  const sheet = await SheetPage.open(page, 'station-readings');
  await sheet.openRule('pH out of range');
  await expect(sheet.bench.getByRole('slider').first()).toBeVisible();
  // The mirror's text is see-through on purpose: what is seen is painted, and its contrast is tested with the looks.
  await checked('the bench', (axe) => axe.exclude('[role=grid]'));
  expect(await violations(page, (axe) => axe.include('[role=grid]').disableRules(['color-contrast']))).toEqual([]);
});

test('on a phone: tap, edit in the line, open a rule, and move its threshold', async ({ browser }) => {
  const context = await browser.newContext(phone);
  const page = await context.newPage();
  const sheet = await SheetPage.open(
    page,
    await makeSheet(page, [
      ['Station', 'Oxygen'],
      ['Alder', '4'],
      ['Birch', '8'],
    ]),
  );
  await sheet.cell('B3').tap();
  await expect(page.getByTestId('address')).toHaveValue('B3');
  await page.getByLabel('Content of the selected cell').tap();
  await page.getByLabel('Content of the selected cell').fill('3');
  await page.keyboard.press('Enter');
  await expect(sheet.cell('B3')).toHaveText('3');
  await sheet.legend.getByRole('button', { name: 'New rule' }).tap();
  await page
    .getByRole('dialog', { name: 'New rule' })
    .getByRole('button', { name: /^Compare with a value/ })
    .tap();
  await sheet.bench.getByRole('textbox', { name: 'Threshold' }).fill('3.5');
  await sheet.bench.getByRole('button', { name: 'Save rule' }).tap();
  await expect(sheet.legend.getByTestId('count')).toHaveText('1 of 60');
  await expect(sheet.cell('B3')).toHaveAttribute('data-fill', '#fde5ac');
  await sheet.bench.getByRole('button', { name: 'Look:' }).tap();
  await page.getByRole('dialog', { name: 'Look' }).getByRole('button', { name: 'Alarm', exact: true }).tap();
  await expect(sheet.cell('B3')).toHaveAttribute('data-fill', '#f7d3c8');
  expect(await violations(page)).toEqual([]);
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await context.close();
});

test('the spotlight fades everything that a rule does not show; find goes from one of its cells to the next', async ({
  page,
}) => {
  const sheet = await SheetPage.open(
    page,
    await makeSheet(page, [
      ['Station', 'Oxygen'],
      ['Alder', '4'],
      ['Birch', '8'],
    ]),
  );
  await sheet.beginRule('B2', /^Above or below average/);
  await sheet.bench.getByRole('button', { name: 'Save rule' }).click();
  await sheet.bench.getByRole('button', { name: 'Done' }).click();
  await sheet.openRule('Oxygen is above the average');
  await expect(page.getByTestId('address')).toHaveValue('B3');
  await expect(sheet.cell('B2')).toHaveAttribute('data-faded', 'true');
  await expect(sheet.cell('B3')).not.toHaveAttribute('data-faded');
  await page.keyboard.press('Escape');
  await expect(sheet.cell('B2')).not.toHaveAttribute('data-faded');
  await sheet.cell('A1').click();
  await sheet.actions.getByRole('button', { name: 'Find' }).click();
  await page.getByLabel('Look', { exact: true }).selectOption('Matched by Oxygen is above the average');
  await page.getByRole('search').getByRole('button', { name: 'Next' }).click();
  await expect(page.getByRole('search').getByRole('status')).toHaveText('1 of 1 cell');
  await expect(page.getByTestId('address')).toHaveValue('B3');
});
