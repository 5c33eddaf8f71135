import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

const ROWS = [
  ['Clue', 'Answer', 'Key'],
  ['Flat, swims on its side', '', 'Freshwater shrimp|shrimp'],
  ['Three tails', '', 'Mayfly'],
  ['Case of sand', '', 'Caddis'],
];

test('the teacher’s job by touch: a common job finds the key, answers turn right, nearly right and wrong, and the trace says why', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.cell('B2').tap();
  await sheet.legend.getByRole('button', { name: 'New rule' }).tap();
  await page
    .getByRole('dialog', { name: 'New rule' })
    .getByRole('button', { name: /^Check answers against a key/ })
    .first()
    .tap();
  await expect(sheet.bench.getByRole('button', { name: 'Key: the record’s Key' })).toBeVisible();
  // The sentence, the outcomes and what keeps the rule are all within the width of the phone.
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await sheet.pick('Nearness', 'may be one letter off');
  await sheet.bench.getByRole('button', { name: 'Look of not yet answered:' }).tap();
  const look = page.getByRole('dialog', { name: 'Look of not yet answered' });
  await look.getByRole('button', { name: 'Ringed' }).tap();
  const box = (await look.boundingBox())!;
  expect(box.x).toBeGreaterThanOrEqual(0);
  expect(box.x + box.width).toBeLessThanOrEqual(390);
  await page.keyboard.press('Escape');
  await sheet.bench.getByRole('button', { name: 'Save rule' }).tap();
  await sheet.bench.getByRole('button', { name: 'Done' }).tap();
  await expect(sheet.count('Answer is checked against')).toHaveText('3 of 60');

  for (const [cell, answer, fill] of [
    ['B2', 'Shrimp', '#cfe8dc'],
    ['B3', 'mayflie', '#f7d3c8'],
    ['B4', 'cadis', '#fde5ac'],
  ] as const) {
    await sheet.cell(cell).tap();
    await sheet.line.tap();
    await sheet.line.fill(answer);
    await sheet.line.press('Enter');
    await expect(sheet.cell(cell)).toHaveAttribute('data-fill', fill);
  }
  await sheet.cell('B4').tap();
  await page.getByRole('button', { name: /^Why this cell looks so/ }).tap();
  await expect(page.getByRole('list', { name: 'Trace' })).toContainText('cadis');
  expect(await violations(page, (axe) => axe.exclude('[role=grid]'))).toEqual([]);
});

test('advice is within the phone, and mends what it found', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.cell('C2').tap();
  for (const words of ['clue contains tails as plum', 'clue contains tails as plum']) {
    await sheet.legend.getByRole('button', { name: 'New rule' }).tap();
    await page.getByRole('combobox', { name: 'Say it in words' }).fill(words);
    await page.getByRole('combobox', { name: 'Say it in words' }).press('Enter');
    await sheet.bench.getByRole('button', { name: 'Done' }).tap();
  }
  // A rule that was put aside stands beside the advice, and there is room for the next.
  await sheet.legend.getByRole('button', { name: 'New rule' }).tap();
  await page.getByRole('button', { name: /^Find duplicates/ }).tap();
  await expect(sheet.bench).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet.legend.getByRole('button', { name: 'Drafts (1)' })).toBeVisible();
  const next = (await sheet.legend.getByRole('button', { name: 'New rule' }).boundingBox())!;
  expect(next.x + next.width).toBeLessThanOrEqual(390);
  await sheet.legend.getByRole('button', { name: /^Advice/ }).tap();
  const advice = page.getByRole('dialog', { name: 'Advice' });
  const box = (await advice.boundingBox())!;
  expect(box.x).toBeGreaterThanOrEqual(0);
  expect(box.x + box.width).toBeLessThanOrEqual(390);
  await advice
    .getByRole('listitem')
    .filter({ hasText: 'One of them will do' })
    .getByRole('button', { name: 'Fix it' })
    .tap();
  await expect(sheet.legend.getByRole('listitem')).toHaveCount(1);
});

test('a threshold is moved by a finger, and the rule is carried, switched off and removed from its menu', async ({
  page,
}) => {
  const sheet = await SheetPage.open(
    page,
    await makeSheet(page, [
      ['Oxygen', 'Nitrate'],
      ...['3', '4', '5', '6', '7', '8', '9'].map((value) => [value, value]),
    ]),
  );
  await sheet.cell('A2').tap();
  await sheet.legend.getByRole('button', { name: 'New rule' }).tap();
  await page.getByRole('combobox', { name: 'Say it in words' }).fill('oxygen below 5');
  await page.getByRole('combobox', { name: 'Say it in words' }).press('Enter');
  const handle = sheet.bench.getByRole('slider', { name: 'Threshold' });
  await handle.scrollIntoViewIfNeeded();
  const grip = (await sheet.bench.locator('circle').boundingBox())!;
  const from = { x: grip.x + grip.width / 2, y: grip.y + grip.height / 2 };
  const browser = await page.context().newCDPSession(page);
  await browser.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [from] });
  await browser.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [{ ...from, x: from.x + 110 }] });
  await page.waitForTimeout(100);
  await browser.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: [{ ...from, x: from.x + 111 }] });
  await browser.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
  await expect.poll(async () => Number(await handle.getAttribute('aria-valuenow'))).toBeGreaterThan(6);
  await expect(sheet.cell('A5')).toHaveAttribute('data-fill', '#fde5ac');
  await sheet.bench.getByLabel('Name of the rule').fill('Low');
  await sheet.bench.getByRole('button', { name: 'Save changes' }).tap();
  await sheet.bench.getByRole('button', { name: 'Done' }).tap();
  await sheet.cell('B2').tap();
  const choose = async (item: string) => {
    await sheet.entry('Low').first().getByRole('button', { name: 'Actions for' }).tap();
    await page.getByRole('menuitem', { name: item }).tap();
    await expect(page.getByRole('menu')).toHaveCount(0);
  };
  await choose('Copy to the selected cells');
  await expect(sheet.cell('B2')).toHaveAttribute('data-rules', 'Low (Nitrate)');
  await choose('Turn off');
  await expect(sheet.cell('A2')).not.toHaveAttribute('data-rules');
  await choose('Delete');
  await expect(sheet.legend.getByRole('listitem')).toHaveCount(1);
});
