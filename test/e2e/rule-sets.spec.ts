import { comeBy, makeLink } from './people-page';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

test('rules are kept as a set and used in another sheet; when the original changes, that sheet says so', async ({
  page,
}) => {
  const first = await makeSheet(page, [
    ['Station', 'Oxygen'],
    ['Alder', '4.2'],
    ['Birch', '6'],
  ]);
  const second = await makeSheet(page, [
    ['Oxygen', 'Station'],
    ['3.9', 'Cedar'],
    ['5.5', 'Dipper'],
  ]);
  const low = {
    id: 'low',
    key: 'a0',
    rule: {
      id: 'low',
      name: 'Low oxygen',
      on: true,
      settles: false,
      reads: { fields: ['f2'] },
      when: { kind: 'compare', is: '<', to: 5 },
      paints: 'cell',
      look: { look: 'alarm' },
    },
  };
  const put = (to: number, id: string) =>
    page.request.post(`/api/sheets/${first}/changes`, {
      data: {
        id,
        operations: [{ kind: 'put-rules', rules: [{ ...low, rule: { ...low.rule, when: { ...low.rule.when, to } } }] }],
      },
    });
  await put(5, 'rule');
  const sheet = await SheetPage.open(page, first);
  const name = `Limits ${Date.now()}`;
  await sheet.ruleMenu('Low oxygen', 'Save as rule set…');
  await page.getByLabel('New rule set').fill(name);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByText(`“${name}” was saved`)).toBeVisible();

  await sheet.page.goto(`/sheets/${second}`);
  await sheet.isLive();
  await page.getByRole('button', { name: 'Actions for the legend' }).click();
  await page.getByRole('menuitem', { name: 'Use a rule set…' }).click();
  await page.getByRole('button', { name: `${name}: 1 rule, version 1` }).click();
  await expect(sheet.cell('A2')).toHaveAttribute('data-rules', 'Low oxygen');
  await expect(sheet.cell('A3')).not.toHaveAttribute('data-rules');

  // The original moves on.
  await put(6, 'moved-on');
  await sheet.page.goto(`/sheets/${first}`);
  await sheet.isLive();
  await sheet.ruleMenu('Low oxygen', 'Save as rule set…');
  await page.getByRole('button', { name: `${name}: 1 rule, version 1` }).click();
  await expect(page.getByText(`“${name}” is at version 2 now`)).toBeVisible();
  await sheet.page.goto(`/sheets/${second}`);
  await sheet.isLive();
  await expect(page.getByText(`The rule set “${name}” has a newer version.`)).toBeVisible();
  await page.getByRole('button', { name: 'Update its rules' }).click();
  await expect(sheet.cell('A3')).toHaveAttribute('data-rules', 'Low oxygen');
  await expect(page.getByText('has a newer version.')).toHaveCount(0);
  await expect(sheet.legend.getByRole('listitem')).toHaveCount(1);
  // It can be taken back like anything else.
  await sheet.act('Undo');
  await expect(sheet.cell('A3')).not.toHaveAttribute('data-rules');
});

test('a rule that one keeps to oneself paints here and nowhere else, also after a reload, until it is given to everybody', async ({
  page,
  browser,
}) => {
  const id = await makeSheet(page, [
    ['Station', 'Oxygen'],
    ['Alder', '4.2'],
    ['Birch', '6'],
  ]);
  const rule = {
    id: 'low',
    name: 'Low oxygen',
    on: true,
    settles: false,
    reads: { fields: ['f2'] },
    when: { kind: 'compare', is: '<', to: 5 },
    paints: 'cell',
    look: { look: 'alarm' },
  };
  await page.request.post(`/api/sheets/${id}/changes`, {
    data: { id: 'rule', operations: [{ kind: 'put-rules', rules: [{ id: 'low', key: 'a0', rule }] }] },
  });
  const mine = await SheetPage.open(page, id);
  const theirs = await comeBy(
    browser,
    (await makeLink(page.request, id, { role: 'editor', name: 'Colleague' })).path,
    'Perrin Vale',
  );
  await expect(theirs.sheet.cell('B2')).toHaveAttribute('data-rules', 'Low oxygen');

  await mine.ruleMenu('Low oxygen', 'Show only to me');
  await expect(mine.entry('Low oxygen')).toContainText('only you');
  await expect(mine.cell('B2')).toHaveAttribute('data-rules', 'Low oxygen');
  await expect(theirs.sheet.cell('B2')).not.toHaveAttribute('data-rules');
  await expect(theirs.sheet.legend).toContainText('No rules yet');
  // It is worked on like any other, and follows what others enter.
  await mine.ruleMenu('Low oxygen', 'Turn off');
  await expect(mine.cell('B2')).not.toHaveAttribute('data-rules');
  await mine.ruleMenu('Low oxygen', 'Turn on');
  await theirs.sheet.type('B3', '3');
  await expect(mine.cell('B3')).toHaveAttribute('data-rules', 'Low oxygen');
  await page.reload();
  await mine.isLive();
  await expect(mine.cell('B3')).toHaveAttribute('data-rules', 'Low oxygen');

  await mine.ruleMenu('Low oxygen', 'Share with everyone');
  await expect(theirs.sheet.cell('B3')).toHaveAttribute('data-rules', 'Low oxygen');
  await expect(mine.entry('Low oxygen')).not.toContainText('only you');
  await theirs.context.close();
});
