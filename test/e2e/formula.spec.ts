import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

const READINGS = [
  ['Station', 'Oxygen', 'Water temperature'],
  ['Alder Weir', '8.16', '2.5'],
  ['Birch Ford', '4.2', '7'],
  ['Cedar Sluice', '6', '3.25'],
];

test('a formula is written with help: completion, arguments by name, cells pointed at, anchors stepped', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, READINGS));
  const editor = page.getByRole('textbox', { name: 'Cell content' });
  await sheet.cell('D2').click();
  await page.keyboard.type('=rou');
  await expect(page.getByRole('option', { name: 'ROUNDDOWN' })).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(editor).toHaveText('=ROUND()');
  await expect(page.getByRole('note')).toContainText('ROUND(number; [digits])');
  await expect(page.getByRole('note').locator('strong')).toHaveText('number');
  await sheet.cell('B2').click();
  await expect(editor).toHaveText('=ROUND(B2)');
  await page.keyboard.type(';1');
  await expect(page.getByRole('note').locator('strong')).toHaveText('[digits]');
  const elsewhere = page.getByRole('group', { name: 'How it reads elsewhere' });
  await expect(elsewhere).toContainText('at D3 =ROUND(B3;1)');
  await elsewhere.getByRole('button', { name: 'Read it one cell further right' }).click();
  await expect(elsewhere).toContainText('at E3 =ROUND(C3;1)');
  await page.keyboard.press('Enter');
  await expect(sheet.cell('D2')).toHaveText('8.2');
  await expect(page.getByTestId('address')).toHaveValue('D3');

  // A range by dragging, another by the arrow keys; each has the colour of its cells.
  await page.keyboard.type('=SUM(');
  await sheet.drag('B2', 'B4', { from: [0.5, 0.5], to: [0.5, 0.5] });
  await expect(editor).toHaveText('=SUM(B2:B4)');
  await page.keyboard.type(';');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('Shift+ArrowDown');
  await expect(editor).toHaveText('=SUM(B2:B4;C3:C4)');
  const colors = await editor
    .locator('span[style*="--references"]')
    .evaluateAll((spans) => spans.map((span) => getComputedStyle(span).color));
  expect(new Set(colors).size).toBe(2);
  // Popovers over the sheet are usable by everybody.
  expect(await violations(page, (axe) => axe.disableRules(['color-contrast']))).toEqual([]);
  await page.keyboard.press('F8');
  await expect(editor).toHaveText('=SUM(B2:B4;$C$3:$C$4)');
  await page.keyboard.press('F8');
  await expect(editor).toHaveText('=SUM(B2:B4;C$3:C$4)');
  await page.keyboard.press('Enter');
  await expect(sheet.cell('D3')).toHaveText('28.61');

  // A label of several words is put in its quotes; Escape lets everything go.
  await page.keyboard.type("='wat");
  await expect(page.getByRole('option', { name: 'Water temperature' })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(editor).toHaveText("='Water temperature'");
  // Escape closes first what is offered.
  await expect(page.getByRole('option')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await expect(editor).toHaveCount(0);
  await expect(sheet.cell('D4')).toHaveText('');

  // In the line above as well; what cannot be read is underlined where it stands, and said once it is entered.
  await sheet.cell('D2').click();
  await sheet.line.click();
  await expect(sheet.line).toHaveText('=ROUND(B2;1)');
  await page.keyboard.press('Control+a');
  await page.keyboard.type('=B2+*3');
  await expect(sheet.line.locator('.cm-mistake')).toHaveText('*');
  await page.keyboard.press('Enter');
  await expect(page.locator('[role=status]').getByText('at character 5')).toBeVisible();
  await expect(sheet.line).toHaveValue('=B2+*3');
});

test('a formula that is typed before its editor has arrived is entered as it was typed', async ({ page }) => {
  const id = await makeSheet(page, [
    ['Station', 'Oxygen'],
    ['Alder', '4'],
    ['Birch', '5'],
  ]);
  await page.route('**/*.js', async (route) => {
    const response = await route.fetch();
    const body = await response.text();
    if (body.includes('cm-content')) await new Promise((resolve) => setTimeout(resolve, 1500));
    await route.fulfill({ response, body });
  });
  const sheet = await SheetPage.open(page, id);
  await sheet.cell('C2').click();
  await page.keyboard.type('=');
  await page.keyboard.insertText('SUM(B2:B3)');
  await expect(page.locator('.cm-content')).toHaveText('=SUM(B2:B3)');
  // Nothing is offered behind the last parenthesis, so Tab enters the formula.
  await page.waitForTimeout(600);
  await expect(page.locator('.cm-tooltip-autocomplete')).toHaveCount(0);
  await page.keyboard.press('Tab');
  await expect(sheet.cell('C2')).toHaveText('9');
});
