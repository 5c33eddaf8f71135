import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

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

test('findings list what entered and left a rule, with who and when; seen, noted, muted; and a click goes to the record', async ({
  page,
}) => {
  const id = await makeSheet(page, [
    ['Station', 'Oxygen'],
    ['Alder Weir', '9'],
    ['Birch Ford', '8'],
  ]);
  await page.request.post(`/api/sheets/${id}/changes`, {
    data: { id: 'rule', operations: [{ kind: 'put-rules', rules: [low] }] },
  });
  const sheet = await SheetPage.open(page, id);
  await sheet.type('B2', '4.2');
  await sheet.type('B3', '3.9');
  await sheet.type('B2', '7');
  await sheet.isLive();
  const feed = page.getByRole('list', { name: 'Findings' });
  await expect(async () => {
    await page.goto(`/sheets/${id}/findings`);
    await expect(feed.getByRole('listitem')).toHaveCount(3, { timeout: 1000 });
  }).toPass();
  // The newest first.
  await expect(feed.getByRole('listitem').first()).toContainText('Alder Weir left Low oxygen');
  await expect(feed.getByRole('listitem').first()).toContainText('Oxygen: 4.2 7');
  await expect(feed.getByRole('listitem').first()).toContainText('Mara Quillfeather');
  await expect(page.getByRole('img', { name: /Low oxygen: 1 cells now, 2 at most/ })).toBeVisible();

  const birch = feed.getByRole('listitem').filter({ hasText: 'Birch Ford' });
  await birch.getByRole('button', { name: 'Add a note' }).click();
  await birch.getByLabel('Note').fill('Sensor to be looked at');
  await page.keyboard.press('Enter');
  await expect(birch).toContainText('Mara Quillfeather: Sensor to be looked at');
  await birch.getByRole('button', { name: 'Seen' }).click();
  await expect(feed.getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: 'Mark all as seen' }).click();
  await expect(page.getByText('No new findings')).toBeVisible();
  await page.getByText('All', { exact: true }).click();
  await expect(feed.getByRole('listitem')).toHaveCount(3);

  await page.getByLabel('Post new findings to').fill('http://example.org/elsewhere');
  await page.getByRole('button', { name: 'Save address' }).click();
  await expect(page.getByText('This server tells no other address of findings')).toBeVisible();
  await page.getByRole('switch', { name: 'Mute for me' }).click();
  await expect(feed.getByRole('listitem')).toHaveCount(0);
  await page.getByRole('switch', { name: 'Mute for me' }).click();
  await feed.getByRole('link', { name: 'Birch Ford' }).click();
  await sheet.isLive();
  await expect(page.getByTestId('address')).toHaveValue('B3');

  // The feed of all sheets has it too.
  await page.goto('/findings');
  await page.getByText('All', { exact: true }).click();
  await expect(feed.getByRole('listitem').filter({ hasText: 'Birch Ford' }).first()).toContainText(
    'entered Low oxygen in Test',
  );
});
