import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

test('the teacher’s sheet, from an empty one: directions across, a shaded header, an answer field, and looks that come while one types', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, [['']]));
  await sheet.typeAcross('A1', 'Clue', 'Group A', 'Group B', 'Key');
  await sheet.cell('A1').click();
  await sheet.menu('Rows', 'Insert a row above');
  await sheet.type('A1', 'Which riverfly is it? Read the clue and type its name in your group’s field.');
  await sheet.select('A1', 'C1');
  await sheet.act('Style');
  const style = page.getByRole('group', { name: 'Style' });
  await style.getByRole('button', { name: 'Merge' }).click();
  await sheet.cell('A1').click();
  await style.getByRole('button', { name: 'Wrap text' }).click();
  await style.getByRole('button', { name: 'Centre' }).click();
  await style.getByLabel('Fill: #f3ead7').click();
  await expect(sheet.cell('A1')).toHaveAttribute('data-fill', '#f3ead7');
  await expect(sheet.cell('B1')).toHaveCount(0);
  expect((await sheet.cell('A1').boundingBox())!.width).toBe(360);
  const gutter = (await sheet.cell('A1').boundingBox())!;
  await page.mouse.move(gutter.x - 20, gutter.y + gutter.height - 1);
  await page.mouse.down();
  await page.mouse.move(gutter.x - 20, gutter.y + 47, { steps: 4 });
  await page.mouse.up();
  await expect.poll(async () => (await sheet.cell('A1').boundingBox())!.height).toBeGreaterThan(44);

  await sheet.select('A2', 'D2');
  await style.getByLabel('Fill: #2c3350').click();
  await style.getByRole('button', { name: 'Centre' }).click();
  await expect(sheet.cell('C2')).toHaveAttribute('data-fill', '#2c3350');
  await sheet.typeDown(
    'A3',
    'Three tails and gills along its sides',
    'Lives in a case of small stones',
    'Two tails, and climbs out to hatch',
  );
  await sheet.typeDown('D3', 'Mayfly', 'Caddis', 'Stonefly');
  await sheet.select('A2', 'D5');
  await style.getByRole('button', { name: 'Thick outline' }).click();

  // A common job finds the key by its name; the rule covers the header no more than the directions.
  await sheet.cell('B3').click();
  await sheet.legend.getByRole('button', { name: 'New rule' }).click();
  await page
    .getByRole('dialog', { name: 'New rule' })
    .getByRole('button', { name: /^Check answers against a key/ })
    .first()
    .click();
  await expect(sheet.bench.getByRole('button', { name: 'Key: the record’s Key' })).toBeVisible();
  await sheet.pick('Nearness', 'may be one letter off');
  await sheet.bench.getByLabel('Name of the rule').fill('Answers');
  await sheet.keepRule();
  await sheet.typeDown('B3', 'mayfly', 'cadis', 'stone');
  for (const [cell, fill] of [
    ['B3', '#cfe8dc'],
    ['B4', '#fde5ac'],
    ['B5', '#f7d3c8'],
  ] as const)
    await expect(sheet.cell(cell)).toHaveAttribute('data-fill', fill);
  await sheet.type('B5', 'STONEFLY ');
  await expect(sheet.cell('B5')).toHaveAttribute('data-fill', '#cfe8dc');
  await expect(sheet.cell('B3')).toHaveAccessibleName('mayfly, Answers');
  await expect(sheet.cell('B2')).toHaveAttribute('data-fill', '#2c3350');

  expect(await violations(page)).toEqual([]);
});

test('the analyst’s planner, from an empty sheet: a table from formulas with mixed anchors, and a rule for what is too long in it', async ({
  page,
}) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, [['']]));
  await sheet.typeAcross('A1', 'Flow', '8', '12', '16', '20');
  await sheet.typeDown('A2', '50', '100');
  await sheet.select('A2', 'A3');
  await sheet.fillTo('A3', 'A6');
  await expect(sheet.cell('A6')).toHaveText('250');
  // Hours of aeration: a tenth of the flow for each 4 degrees. Right first, then down: each cell reads its own row and
  // column.
  await sheet.type('B2', '=$A2*B$1/40');
  await sheet.select('B2', 'E2');
  await page.keyboard.press('Alt+Shift+ArrowRight');
  await sheet.select('B2', 'E6');
  await page.keyboard.press('Alt+Shift+ArrowDown');
  await expect(sheet.cell('E6')).toHaveText('125');
  expect(await sheet.texts('ABCDE', 2, 6)).toEqual(
    [50, 100, 150, 200, 250].map((flow) =>
      [flow, ...[8, 12, 16, 20].map((degrees) => (flow * degrees) / 40)].map(String),
    ),
  );
  await sheet.cell('D4').click();
  await expect(sheet.line).toHaveValue('=$A4*D$1/40');
  await sheet.actions.getByRole('button', { name: 'Numbers' }).click();
  await page.getByRole('menuitem', { name: 'Increase decimals' }).click();
  await page.keyboard.press('Escape');
  await expect(sheet.cell('D4')).toHaveText('60.0');

  // Three rules that exclude one another, with their limits in cells: another limit recolours the whole table.
  await sheet.typeDown('G1', 'Limits', '30', '60');
  const rule = async (
    name: string,
    look: string,
    { is, limits }: { is: string; limits: readonly [label: string, cell: string][] },
  ) => {
    await sheet.select('B2', 'E2');
    await page.keyboard.press('Alt+r');
    await page
      .getByRole('dialog', { name: 'New rule' })
      .getByRole('button', { name: /^Compare with a value/ })
      .click();
    await sheet.pick('Comparison', is);
    for (const [label, cell] of limits) {
      await sheet.pick(`${label} is`, 'what a cell holds');
      await sheet.bench.getByRole('textbox', { name: label }).fill(cell);
    }
    await sheet.bench.getByLabel('Name of the rule').fill(name);
    await sheet.pickLook('Look', look);
    await sheet.keepRule();
  };
  await rule('Too long', 'Alarm', { is: 'is above', limits: [['Threshold', 'G3']] });
  await rule('Fits', 'Clear', {
    is: 'is between',
    limits: [
      ['One end', 'G2'],
      ['Other end', 'G3'],
    ],
  });
  await rule('Short', 'Cool', { is: 'is below', limits: [['Threshold', 'G2']] });
  const hours = [50, 100, 150, 200, 250].flatMap((flow) => [8, 12, 16, 20].map((degrees) => (flow * degrees) / 40));
  const counts = async (low: number, high: number) => {
    await expect(sheet.count('Short')).toHaveText(`${hours.filter((each) => each < low).length} of 240`);
    await expect(sheet.count('Fits')).toHaveText(
      `${hours.filter((each) => each >= low && each <= high).length} of 240`,
    );
    await expect(sheet.count('Too long')).toHaveText(`${hours.filter((each) => each > high).length} of 240`);
  };
  await counts(30, 60);
  await expect(sheet.cell('D4')).toHaveAccessibleName('60.0, Fits');
  await sheet.type('G3', '100');
  await counts(30, 100);
  await sheet.type('G2', '45');
  await counts(45, 100);
  await expect(sheet.cell('C4')).toHaveAttribute('data-fill', '#cfe8dc');
});
