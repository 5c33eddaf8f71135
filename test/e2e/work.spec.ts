import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

// Would make nearly ten million rows times 26 columns.
const HUGE = '=SUMPRODUCT(A1:A9999000*A1:Z1)';

test('a formula that is too much work is an error that says so, and the sheet goes on', async ({ page }) => {
  const sheet = await SheetPage.open(
    page,
    await makeSheet(page, [
      ['Oxygen', 'Doubled'],
      ['8', '=A2*2'],
    ]),
  );
  await sheet.type('D2', HUGE);
  await expect(sheet.cell('D2')).toHaveText('#LIMIT!');
  await sheet.cell('D2').click();
  await expect(page.getByRole('status').filter({ hasText: 'too much work' })).toContainText('use smaller ranges');
  await sheet.type('A2', '7');
  await expect(sheet.cell('B2')).toHaveText('14');
  // What is made smaller works again.
  await sheet.type('D2', '=SUMPRODUCT(A2:A90*A2)');
  await expect(sheet.cell('D2')).toHaveText('49');
});

test('rules that are too much work are a problem to programs that send them, and what is no table is refused', async ({
  page,
}) => {
  const id = await makeSheet(page, [['Oxygen'], ['8']]);
  const made = await page.request.post(`/api/sheets/${id}/programs`, { data: { name: 'Rules', scopes: ['read'] } });
  const { token } = (await made.json()) as { token: string };
  const evaluate = (data: readonly object[], rules: readonly object[]) =>
    page.request.post('/api/v1/evaluate', {
      headers: { authorization: `Bearer ${token}` },
      data: { data, rules: { format: 'auxesis-rules', version: 1, rules } },
    });
  const rule = (id: string, formula: string) => ({
    id,
    name: id,
    reads: { fields: ['Oxygen'] },
    when: { kind: 'formula', formula, at: 'A2' },
    paints: 'cell',
  });
  const judged = await evaluate([{ Oxygen: 8 }, { Oxygen: 4 }], [rule('huge', `${HUGE}>0`), rule('low', '=A2<5')]);
  expect(judged.status(), await judged.text()).toBe(200);
  const { rules } = (await judged.json()) as {
    rules: { id: string; matched: string[]; problem: { message: string } | null }[];
  };
  expect(rules).toMatchObject([
    { id: 'huge', matched: [] },
    { id: 'low', matched: ['A3'], problem: null },
  ]);
  const wide = await evaluate(
    Array.from({ length: 11 }, (_, record) =>
      Object.fromEntries(Array.from({ length: 100 }, (__, at) => [`Label ${record} ${at}`, at])),
    ),
    [],
  );
  expect({ status: wide.status(), ...((await wide.json()) as object) }).toMatchObject({
    status: 400,
    refused: expect.stringContaining('1,000 different labels'),
  });
  const long = await evaluate([{ Oxygen: 8 }], [rule('long', `="${'x'.repeat(1_000_001)}"`)]);
  expect({ status: long.status(), ...((await long.json()) as object) }).toMatchObject({
    status: 400,
    refused: expect.stringContaining('at most 1,000,000 characters'),
  });
});
