import { readFileSync } from 'node:fs';
import { CountedPage } from './counted-page';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';

// The jobs, what each may take at most and what it takes: docs/jobs.md.

type Rows = readonly (readonly string[])[];

interface Journey {
  readonly me: CountedPage;
  readonly sheet: SheetPage;
}

const row = (job: string): string[] =>
  new RegExp(`^\\| ${job} +\\|.*$`, 'm')
    .exec(readFileSync('docs/jobs.md', 'utf8'))![0]
    .split('|')
    .map((cell) => cell.trim());

/** A job done on a sheet of its own, from the open sheet with nothing selected to all painted as wanted. */
function journey(job: string, rows: Rows, does: (at: Journey) => Promise<void>): void {
  test(`job ${job}: ${row(job)[2]}`, async ({ page }) => {
    // All fields are in view, so that none must be scrolled to.
    if (rows[0]!.length > 8) await page.setViewportSize({ width: 2040, height: 800 });
    const sheet = await SheetPage.open(page, await makeSheet(page, rows));
    const me = new CountedPage(page);
    await does({ me, sheet });
    expect(me.count).toBeLessThanOrEqual(Number(row(job)[3]));
    expect(me.count, 'as docs/jobs.md says').toBe(Number(row(job)[4]));
  });
}

/** Opens the line for rules in words, types them, and saves once they are shown with their counts. */
async function say({ me, sheet }: Journey, words: string): Promise<void> {
  await me.press('Alt+r');
  const line = sheet.page.getByRole('combobox', { name: 'Say it in words' });
  await expect(line).toBeFocused();
  await me.type(words, sheet.page.getByText(/\d of [\d,]+ cells?$/).first());
  await expect(sheet.page.getByRole('dialog', { name: 'New rule' })).toHaveCount(0);
}

/** Waits until cells have these fills; undefined for none. */
async function fills(sheet: SheetPage, wanted: Readonly<Record<string, string | undefined>>): Promise<void> {
  for (const [address, fill] of Object.entries(wanted))
    if (fill === undefined) await expect(sheet.cell(address)).not.toHaveAttribute('data-fill');
    else await expect(sheet.cell(address)).toHaveAttribute('data-fill', fill);
}

const [CLEAR, ALARM, WATCH] = ['#cfe8dc', '#f7d3c8', '#fde5ac'];
const [GOLD, RED, YELLOW, GREEN] = ['#ffd700', '#ff0000', '#ffff00', '#008000'];

journey(
  '1',
  [
    ['Clue', 'Answer', 'Key'],
    ['Three tails', '', 'Mayfly'],
    ['Case of sand', '', 'Caddis'],
    ['Two tails', '', 'Stonefly'],
  ],
  async ({ me, sheet }) => {
    await say({ me, sheet }, 'answer checked against key');
    await sheet.typeDown('B2', ' MAYFLY', 'snail');
    await fills(sheet, { B2: CLEAR, B3: ALARM, B4: undefined });
  },
);

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const YEAR: Rows = [
  ['Site', ...MONTHS, 'Limit'],
  ['Alder', ...MONTHS.map((_, at) => String(9000 + 200 * at)), '11000'],
  ['Birch', ...MONTHS.map((_, at) => String(10_900 - 100 * at)), ''],
];

journey('2a', YEAR, async ({ me, sheet }) => {
  await me.drag(sheet.cell('B2'), sheet.cell('M2'));
  await say({ me, sheet }, 'above 10,000 as gold fill, bold, red text');
  await fills(sheet, { B2: undefined, G2: undefined, H2: GOLD, B3: GOLD, M3: undefined });
  await expect(sheet.cell('M2')).toHaveAttribute('data-bold', 'true');
});

journey('2b', YEAR, async ({ me, sheet }) => {
  await sheet.select('B2', 'M2');
  await sheet.say('above 10000 as alarm');
  // From here on the limit comes from a cell.
  await me.click(sheet.bench.getByRole('textbox', { name: 'Threshold' }));
  await sheet.page.keyboard.press('Control+a');
  await me.type('=N2');
  await fills(sheet, { L2: undefined, M2: ALARM });
  await sheet.type('N2', '11100');
  await fills(sheet, { M2: ALARM, L2: undefined, B3: undefined });
});

journey('2c', YEAR, async ({ me, sheet }) => {
  await sheet.select('B2', 'M2');
  await sheet.say('above 10000 as alarm');
  await sheet.leaveBench();
  await me.click(sheet.cell('H2'));
  // In the line of the cell, not in the legend.
  await me.click(sheet.page.getByRole('button', { name: /^Jan to Dec is above .*→/ }));
  await expect(sheet.bench.getByRole('textbox', { name: 'Threshold' })).toBeFocused();
  await me.type('11000');
  await fills(sheet, { H2: undefined, M2: ALARM });
});

/** A day that lies some days from today, in ISO form. */
const day = (from: number): string => new Date(Date.now() + from * 86_400_000).toISOString().slice(0, 10);

const firstRule = async (sheet: SheetPage, address: string): Promise<string | undefined> =>
  (await sheet.cell(address).getAttribute('data-rules'))?.split('|')[0];

test(`job 2d: ${row('2d')[2]}`, async ({ page }) => {
  const sheet = await SheetPage.open(
    page,
    await makeSheet(page, [
      ['Station', 'Due', 'Value'],
      ['Alder Weir', day(0), '5'],
      ['Birch Ford', day(1), ''],
      ['Weir Pool', day(-3), '=1/0'],
    ]),
  );
  for (const [words, found, besides] of [
    ['station contains weir as plum', ['A2', 'A4'], 'A3'],
    ['station does not contain weir as plum', ['A3'], 'A2'],
    ['station begins with weir as plum', ['A4'], 'A2'],
    ['station ends with weir as plum', ['A2'], 'A4'],
    ['due is today as plum', ['B2'], 'B3'],
    ['due is tomorrow as plum', ['B3'], 'B2'],
    ['due is in the last 7 days as plum', ['B4'], 'B3'],
    ['value is blank as plum', ['C3'], 'C2'],
    ['value is not blank as plum', ['C2', 'C4'], 'C3'],
    ['value is an error as plum', ['C4'], 'C2'],
    ['value is not an error as plum', ['C2'], 'C4'],
    ['due is next week as plum', [], 'B4'],
    ['due is last month as plum', [], 'B3'],
  ] as const) {
    const me = new CountedPage(page);
    await say({ me, sheet }, words);
    expect(me.count, words).toBe(Number(row('2d')[4]));
    // The newest comes first, so that it is named first where it paints.
    const name = await sheet.bench.getByLabel('Name of the rule').inputValue();
    for (const address of found) await expect.poll(() => firstRule(sheet, address), words).toBe(name);
    expect(await firstRule(sheet, besides), words).not.toBe(name);
  }
});

const TASKS: Rows = [
  ['Task', 'Crew', 'Status'],
  ['Nets', 'Minnow', 'done'],
  ['Boots', 'Heron', 'blocked'],
  ['Maps', 'Minnow', 'waiting'],
];

journey('3', TASKS, async ({ me, sheet }) => {
  for (const words of ['task is nets as plum', 'crew is heron as cool']) {
    await sheet.say(words);
    await sheet.leaveBench();
  }
  await me.click(sheet.legend.getByRole('button', { name: 'Actions for the legend' }));
  await me.click(sheet.page.getByRole('menuitem', { name: 'Delete all rules' }));
  await say(
    { me, sheet },
    'records where status is done as clear, blocked as alarm, every second record in whitesmoke',
  );
  await fills(sheet, { A2: CLEAR, C2: CLEAR, B3: ALARM, A4: '#f5f5f5', D4: undefined, A6: undefined });
});

journey(
  '4',
  [
    ['Upper', 'Lower'],
    ['95', '40'],
    ['70', '60'],
  ],
  async ({ me, sheet }) => {
    await me.drag(sheet.cell('A2'), sheet.cell('B3'));
    await say(
      { me, sheet },
      'the selected cells above 90 as gold fading to white, below 50 in translucent red with a border, equal to 70 with a dashed navy border',
    );
    await expect(sheet.cell('A2')).toHaveAttribute('data-rules', 'A2:B3 is above 90');
    await expect(sheet.cell('B2')).toHaveAttribute('data-rules', 'A2:B3 is below 50');
    await expect(sheet.cell('A3')).toHaveAttribute('data-rules', 'A2:B3 is 70');
    await expect(sheet.cell('B3')).not.toHaveAttribute('data-rules');
    await expect(sheet.cell('A2')).toHaveAttribute('data-mix', '#ffd700 to #ffffff');
    await expect(sheet.cell('B2')).toHaveAttribute('data-mix', '#ff0000 at 40%');
    for (const [address, colour] of [
      ['B2', '#333333'],
      ['A3', '#000080'],
    ] as const)
      await expect(sheet.cell(address)).toHaveAttribute('data-border', new RegExp(`top ${colour}.*left ${colour}`));
  },
);

journey(
  '5',
  [
    ['Name', 'Clue', 'Result'],
    ['Ash', 'Two tails', 'correct'],
    ['Elm', 'Three tails', 'incorrect'],
  ],
  async ({ me, sheet }) => {
    await say({ me, sheet }, 'result is correct as clear, incorrect as alarm, paint name and result');
    await fills(sheet, { A2: CLEAR, B2: undefined, C2: CLEAR, A3: ALARM, C3: ALARM });
    // Records that come later too.
    await sheet.type('C4', 'correct');
    await fills(sheet, { A4: CLEAR });
  },
);

const SHARES: Rows = [
  ['Reach', 'Share'],
  ['Upper', '4%'],
  ['Middle', '5%'],
  ['Lower', '12%'],
];

journey('6', SHARES, async ({ me, sheet }) => {
  await sheet.cell('B2').click();
  await sheet.menu('Fields', 'Average');
  await say({ me, sheet }, 'share in bands at 5% and 10% in red, yellow and green with totals');
  await fills(sheet, { B2: RED, B3: YELLOW, B4: GREEN, B5: YELLOW });
  // The same by one request, of a program that may.
  const id = new URL(sheet.page.url()).pathname.split('/').at(-1)!;
  const made = await sheet.page.request.post(`/api/sheets/${id}/programs`, {
    data: { name: `Rules ${Date.now()}`, scopes: ['rules'] },
  });
  const { token } = (await made.json()) as { token: string };
  const looks = [RED, YELLOW, GREEN].map((fill) => ({ fill }));
  const bands = {
    id: 'bands',
    name: 'Bands',
    reads: { fields: ['Share'], roles: ['record', 'total'] },
    when: { kind: 'bands', cuts: [0.05, 0.1], looks },
    paints: 'cell',
  };
  const file = { format: 'auxesis-rules', version: 1, rules: [bands] };
  expect((await me.put(`/api/v1/sheets/${id}/rules`, token, file)).status()).toBe(200);
  await expect(sheet.cell('B2')).toHaveAttribute('data-rules', 'Bands');
  await fills(sheet, { B2: RED, B3: YELLOW, B4: GREEN, B5: YELLOW });
});

journey(
  '7',
  [
    ['Volunteer of the river watch', 'Hours', 'Share'],
    ['Mara', '12', '0.6'],
    ['Ines', '8', '0.9'],
  ],
  async ({ me, sheet }) => {
    await me.clickLetterOver(sheet.cell('C1'));
    await me.click(sheet.actions.getByRole('button', { name: 'Numbers' }));
    await me.click(sheet.page.getByRole('menuitem', { name: /^Percent 71%/ }));
    await me.click(sheet.actions.getByRole('button', { name: 'Fields' }));
    await me.click(sheet.page.getByRole('menuitem', { name: 'Fit all fields to the content' }));
    await me.click(sheet.page.getByRole('menuitem', { name: 'Totals row for all fields' }));
    await say({ me, sheet }, 'hours with bars, share at most 70% as bold on yellow');
    expect(await sheet.texts('ABC', 4, 4)).toEqual([['Total', '20', '75%']]);
    expect((await sheet.cell('A1').boundingBox())!.width).toBeGreaterThan(150);
    await fills(sheet, { C2: YELLOW, C3: undefined });
    await expect(sheet.cell('B2')).toHaveAttribute('data-bar', /./);
  },
);

journey(
  '8',
  [
    ['Reading', 'Second', 'Third', 'Fourth', 'Day'],
    ['95', '95', '10', '75', day(0)],
    ['50', '50', '20', '95', day(3)],
    ['70', '70', '30', '60', day(-3)],
  ],
  async ({ me, sheet }) => {
    await say({ me, sheet }, 'reading above 80 as bold white on seagreen, below 60 as italic with a red border');
    await fills(sheet, { A2: '#2e8b57', A3: undefined });
    // Carried to the next field, both at once.
    await me.click(sheet.cell('B2'));
    await me.click(sheet.legend.getByRole('button', { name: 'Actions for the legend' }));
    await me.click(sheet.page.getByRole('menuitem', { name: 'Copy all rules to the selected cells' }));
    await fills(sheet, { B2: '#2e8b57', B4: undefined });
    // Removed there.
    await me.click(sheet.legend.getByRole('button', { name: 'Actions for the legend' }));
    await me.click(sheet.page.getByRole('menuitem', { name: 'Delete the rules on the selection' }));
    await fills(sheet, { B2: undefined, A2: '#2e8b57' });
    await say(
      { me, sheet },
      'second in a colour scale from white to red, third with bars, fourth with stars at 70 and 90, day is today as watch',
    );
    await fills(sheet, { B2: RED, E2: WATCH, E3: undefined });
    await expect(sheet.cell('C2')).toHaveAttribute('data-bar', /./);
    await expect(sheet.cell('D3')).toHaveAttribute('data-icon', /full star/);
  },
);

const MARKS: Rows = [
  ['Pupil of the river school', 'One', 'Two', 'Three', 'Four'],
  ['Ash', '90', '85', '95', '60'],
  ['Elm', '70', '69', '89', '91'],
  ['ash', '90', '85', '95', '60'],
];

journey('10', MARKS, async ({ me, sheet }) => {
  await say({ me, sheet }, 'one, two, three and four above 89 as clear, below 70 as alarm');
  await fills(sheet, { B2: CLEAR, B3: undefined, C3: ALARM, D3: undefined, E3: CLEAR });
  await me.click(sheet.actions.getByRole('button', { name: 'Rows' }));
  await me.click(sheet.page.getByRole('menuitem', { name: 'Remove duplicate records' }));
  await expect(sheet.page.getByText('1 duplicate record removed')).toBeVisible();
  await expect(sheet.cell('A4')).toHaveText('');
  await me.click(sheet.cell('C3'));
  await me.type('92');
  await fills(sheet, { C3: CLEAR });
  // The header is wrapped by itself.
  expect((await sheet.cell('A1').boundingBox())!.height).toBeGreaterThan(36);
});

journey(
  '11',
  [
    ['Station', 'North', 'South'],
    ['Alder', '5', '3'],
    ['Birch', '2', '4'],
    ['Cedar', '4', '4'],
  ],
  async ({ me, sheet }) => {
    await say({ me, sheet }, 'north greater than south as clear, south greater than north as watch');
    await fills(sheet, { B2: CLEAR, C2: undefined, B3: undefined, C3: WATCH, B4: undefined, C4: undefined });
  },
);

journey('12', [...TASKS, ['Rods', 'Heron', 'late']], async ({ me, sheet }) => {
  for (const word of ['nets', 'boots', 'maps', 'rods']) {
    // Enter comes before the words have been read: what the field holds is waited for.
    await sheet.say(`records where task is ${word} as plum`);
    await sheet.leaveBench();
  }
  await expect(sheet.legend.getByRole('listitem')).toHaveCount(4);
  // The four rules paint the field they read from now on.
  await me.click(sheet.legend.getByRole('button', { name: 'Actions for the legend' }));
  await me.click(sheet.page.getByRole('menuitem', { name: 'Select all rules' }));
  await me.click(sheet.legend.getByText('cell', { exact: true }));
  await fills(sheet, { A2: '#e9d8f0', B2: undefined, C5: undefined });
  await say({ me, sheet }, 'status with a look for each value');
  await fills(sheet, { C2: CLEAR, C3: ALARM, C4: WATCH });
  await expect(sheet.cell('C5')).toHaveAttribute('data-fill', /^#/);
});

journey('13', MARKS, async ({ me, sheet }) => {
  await say({ me, sheet }, 'one, two, three and four below 70 as alarm');
  await fills(sheet, { E2: ALARM, C3: ALARM, B3: undefined });
  await sheet.type('B5', '12');
  await fills(sheet, { B5: ALARM });
});

journey(
  '14',
  [
    ['Site', 'Before', 'Now'],
    ['Alder', '100', '95'],
    ['Birch', '200', '150'],
    ['Cedar', '40', '50'],
  ],
  async ({ me, sheet }) => {
    await say({ me, sheet }, 'before from 1 to 50 as cool, from 51 to 150 as clear, above 150 as plum');
    await fills(sheet, { B2: CLEAR, B3: '#e9d8f0', B4: '#d3e4f6' });
    // The fall as a field.
    await me.click(sheet.cell('D1'));
    await me.type('Change');
    await me.type('=C2/B2-1');
    await me.drag(sheet.cell('D2'), sheet.cell('D4'));
    await me.press('Alt+Shift+ArrowDown');
    await say({ me, sheet }, 'change below -10% as alarm, below 0 as watch');
    await fills(sheet, { D2: WATCH, D3: ALARM, D4: undefined });
    // The same without it, begun in the wrong order: the advice finds that, and mends it.
    await say({ me, sheet }, 'now below before as watch, more than 10% under before as alarm');
    await fills(sheet, { C2: WATCH, C3: WATCH });
    await me.click(sheet.legend.getByRole('button', { name: /^Advice/ }));
    // Other advice may be there before this.
    const hidden = sheet.page.getByRole('listitem').filter({ hasText: 'is never seen' });
    await me.click(hidden.getByRole('button', { name: 'Fix it' }));
    await fills(sheet, { C2: WATCH, C3: ALARM, C4: undefined });
  },
);

journey(
  '15',
  [
    ['Fund', 'Spring', 'Autumn', '', 'Limit', 'Amount'],
    ['Nets', '-50', '120', '', 'Low', '100'],
    ['Boots', '300', '-700', '', 'High', '500'],
    ['', '', '', '', '', ''],
    ['Maps', '-600', '99', '', '', ''],
  ],
  async ({ me, sheet }) => {
    await me.drag(sheet.cell('B2'), sheet.cell('C3'));
    await say({ me, sheet }, 'the selected cells in bands at F2 and F3 in green, yellow and red by size');
    await fills(sheet, { B2: GREEN, C2: YELLOW, B3: YELLOW, C3: RED });
    await me.drag(sheet.cell('B5'), sheet.cell('C5'));
    await me.click(sheet.legend.getByRole('button', { name: /^Actions for B2:C3/ }));
    await me.click(sheet.page.getByRole('menuitem', { name: 'Copy to the selected cells' }));
    await fills(sheet, { B5: RED, C5: GREEN });
    await sheet.type('F3', '800');
    await fills(sheet, { B5: YELLOW, C3: YELLOW });
  },
);

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });

  test(`job 9: ${row('9')[2]}`, async ({ page }) => {
    const sheet = await SheetPage.open(
      page,
      await makeSheet(page, [
        ['Station', 'Nymphs'],
        ['Alder', '2'],
        ['Birch', '3'],
      ]),
    );
    const me = new CountedPage(page, true);
    await me.click(sheet.legend.getByRole('button', { name: 'New rule' }));
    const line = page.getByRole('combobox', { name: 'Say it in words' });
    await expect(line).toBeFocused();
    await me.type('nymphs 2 or less in coral, 3 or more in palegreen', page.getByText(/\d of \d+ cells?$/).first());
    await fills(sheet, { B2: '#ff7f50', B3: '#98fb98' });
    expect(me.count).toBeLessThanOrEqual(Number(row('9')[3]));
    expect(me.count, 'as docs/jobs.md says').toBe(Number(row('9')[4]));
  });
});
