import type { Page } from '@playwright/test';
import { makeSheet, SheetPage } from './sheet-page';
import { expect, test } from './test';
import { violations } from './violations';

const ROWS = [
  ['Station', 'Oxygen', 'Due'],
  ['Alder Weir', '4.2', '2026-03-08'],
  ['Birch Ford', '8.1', '2026-03-09'],
  ['Cedar Sluice', '6.3', '2026-03-10'],
];

/** Opens a part of the screen. */
type Opener = (page: Page, sheet: SheetPage) => Promise<unknown>;

const press =
  (name: string | RegExp): Opener =>
  (page) =>
    page.getByRole('button', { name, exact: true }).first().click();
const ruleMenu =
  (item: string): Opener =>
  async (page, sheet) => {
    await sheet.ruleMenu('Oxygen is below', item);
    await expect(page.getByRole('dialog')).toBeVisible();
  };
const inPanel =
  (button: string, tab: string): Opener =>
  async (page) => {
    await press(button)(page, new SheetPage(page));
    await page.getByRole('tab', { name: tab }).click();
  };
const onBench =
  (name: string | RegExp): Opener =>
  async (_, sheet) => {
    await sheet.openRule('Oxygen is below');
    await sheet.bench.getByRole('button', { name }).first().click();
  };

/** Every menu, dialog and panel of an open sheet, by what opens it. */
const OPENERS: Readonly<Record<string, Opener>> = {
  edit: press('Edit'),
  'menu of a cell': async (page) => {
    await page.keyboard.press('Shift+F10');
    await expect(page.getByRole('menu', { name: 'Selected cells' })).toBeVisible();
  },
  rows: press('Rows'),
  fields: press('Fields'),
  numbers: press('Numbers'),
  'sort and filter': press('Sort and filter'),
  style: press('Style'),
  find: press('Find'),
  'names of cells': press('Names of cells'),
  trace: press(/^Why this cell looks so/),
  'menu of the legend': press('Actions for the legend'),
  'menu of a rule': press(/^Actions for Oxygen/),
  group: ruleMenu('Add to group…'),
  'rule set': ruleMenu('Save as rule set…'),
  'another sheet': ruleMenu('Copy to another sheet…'),
  'new rule': press('New rule'),
  'a word of the sentence': onBench(/^Comparison/),
  'fields of a rule': onBench(/^Reads/),
  look: onBench(/^Look/),
  commands: async (page) => {
    await page.keyboard.press('Control+k');
    await expect(page.getByRole('combobox', { name: /^Search actions/ })).toHaveAttribute('aria-controls', /./);
  },
  help: async (page) => {
    await page.keyboard.press('F1');
    await expect(page.getByRole('dialog', { name: 'Help' })).toBeVisible();
  },
  'allowed values': async (page, sheet) => {
    await sheet.menu('Fields', 'Allowed values');
    await expect(page.getByRole('dialog')).toBeVisible();
  },
  people: press('Share'),
  links: inPanel('Share', 'Links'),
  'filling in': inPanel('Share', 'Filling in'),
  programs: inPanel('Share', 'Programs'),
  export: press('Files'),
  update: inPanel('Files', 'Update from file'),
  rules: inPanel('Files', 'Rules'),
  person: press(/^You are/),
};

/** Parts that stand there whatever is open, and are looked at once; the grid has tests of its own. */
const STANDING = ['[role=grid]', '[role=toolbar]', 'body > :not([data-portal]) header'] as const;

for (const [where, viewport] of Object.entries({
  'a desk': { width: 1280, height: 800 },
  'a phone': { width: 390, height: 844 },
}))
  test(`on ${where} nothing that opens breaks WCAG 2.2 AA, light or dark`, async ({ page }) => {
    test.slow();
    await page.setViewportSize(viewport);
    const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
    await sheet.cell('B2').click();
    await sheet.say('oxygen below 5 as alarm');
    await sheet.leaveBench();
    const broken: string[] = [];
    for (const [at, [name, open]] of Object.entries(OPENERS).entries()) {
      await sheet.cell('B2').click();
      await open(page, sheet);
      await expect(page.getByText('Loading…')).toHaveCount(0);
      await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 60)));
      for (const scheme of ['light', 'dark'] as const) {
        await page.emulateMedia({ colorScheme: scheme });
        const found = await violations(page, (axe) => {
          // The head of a dialog is no banner of the page.
          // Under the look lies a part of the sentence, which axe takes to be small.
          const wanted = name === 'look' ? axe.include('[role=dialog]') : axe;
          const outside = STANDING.slice(0, at === 0 ? 1 : undefined)
            .reduce((less, part) => less.exclude(part), wanted)
            .options({
              rules: {
                'landmark-no-duplicate-banner': { enabled: false },
                'landmark-unique': { enabled: false },
                region: { enabled: false },
              },
            });
          return scheme === 'light'
            ? outside.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
            : outside.withRules(['color-contrast']);
        });
        broken.push(...found.map((each) => `${name}, ${scheme}: ${each}`));
      }
      await page.emulateMedia({ colorScheme: 'light' });
      for (let times = 0; times < 3; times++) await page.keyboard.press('Escape');
      await expect(page.locator('[role=dialog], [role=menu]'), name).toHaveCount(0);
    }
    expect(broken).toEqual([]);
  });

test('who does not see the looks hears them: shading, borders, bars, mixed fills, and the rules', async ({ page }) => {
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  const words = (address: string) => sheet.cell(address);
  await sheet.cell('B2').click();
  await sheet.say('oxygen with bars');
  await sheet.leaveBench();
  await sheet.cell('A2').click();
  await sheet.say('station is alder weir as gold fading to white with a red border');
  await sheet.leaveBench();
  await expect(words('A2')).toHaveAccessibleName(/^Alder Weir, Station is /);
  await expect(words('A2')).toHaveAccessibleDescription(/^border all around; fill from #[0-9a-f]{6} to #[0-9a-f]{6}$/);
  await expect(words('B3')).toHaveAccessibleName(/^8\.1, bar of 100%, /);
  await sheet.menu('Rows', 'Stripe records');
  await expect(words('A3')).toHaveAccessibleDescription('shaded');
});

test('with colours of the reader’s own forced, looks stay as they are and what is chosen has an edge', async ({
  page,
}) => {
  await page.emulateMedia({ forcedColors: 'active' });
  const sheet = await SheetPage.open(page, await makeSheet(page, ROWS));
  await sheet.cell('B2').click();
  await sheet.say('oxygen below 5 as alarm');
  const swatch = sheet.legend.getByRole('listitem').first().locator('[data-small]').first();
  await expect(swatch).toHaveCSS('background-color', 'rgb(247, 211, 200)');
  await expect(sheet.legend.locator('[aria-pressed=true]').first()).toHaveCSS('outline-style', 'solid');
  await page.emulateMedia({ forcedColors: null });
});
