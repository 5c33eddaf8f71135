import { lazy } from 'react';

/** Parts of the screen that readers and fillers use too. */
const forAll = {
  findPanel: () => import('../actions/find/FindPanel'),
  filesPanel: () => import('../files/FilesPanel'),
  help: () => import('../help/HelpPanel'),
} as const;

/** Parts for those who make rules, those that are wanted soonest first. */
const forMakers = {
  bench: () => import('../bench/Bench'),
  byExample: () => import('../by-example/ByExample'),
  newRuleOffers: () => import('../legend/new-rule/NewRuleOffers'),
  ruleFormula: () => import('../formula/RuleFormula'),
  commandPalette: () => import('../commands/CommandPalette'),
  stylePanel: () => import('../actions/StylePanel'),
  chosenRules: () => import('../legend/ChosenRules'),
  allowedValues: () => import('../actions/AllowedValues'),
  linkedRows: () => import('../linked/LinkedRows'),
  sharePanel: () => import('../share/SharePanel'),
  tour: () => import('../help/Tour'),
} as const;

// Nobody needs these to read a sheet: each is fetched when it is wanted.
export const LaterFindPanel = lazy(async () => ({ default: (await forAll.findPanel()).FindPanel }));
export const LaterFilesPanel = lazy(async () => ({ default: (await forAll.filesPanel()).FilesPanel }));
export const LaterHelp = lazy(forAll.help);
export const LaterBench = lazy(async () => ({ default: (await forMakers.bench()).Bench }));
export const LaterByExample = lazy(async () => ({ default: (await forMakers.byExample()).ByExamplePanel }));
export const LaterNewRuleOffers = lazy(async () => ({ default: (await forMakers.newRuleOffers()).NewRuleOffers }));
export const LaterCommandPalette = lazy(async () => ({ default: (await forMakers.commandPalette()).CommandPalette }));
export const LaterStylePanel = lazy(async () => ({ default: (await forMakers.stylePanel()).StylePanel }));
export const LaterChosenRules = lazy(async () => ({ default: (await forMakers.chosenRules()).ChosenRules }));
export const LaterAllowedValues = lazy(async () => ({ default: (await forMakers.allowedValues()).AllowedValues }));
export const LaterLinkedRows = lazy(async () => ({ default: (await forMakers.linkedRows()).LinkedRows }));
export const LaterSharePanel = lazy(async () => ({ default: (await forMakers.sharePanel()).SharePanel }));
export const LaterTour = lazy(forMakers.tour);

/**
 * Fetches all of them once the sheet is open, one after another, so that they never compete with it, and are there
 * without a connection too. What fails is fetched when it is wanted.
 */
export async function fetchLater({ isMaker }: { readonly isMaker: boolean }): Promise<void> {
  const parts = [...(isMaker ? Object.values(forMakers) : []), ...Object.values(forAll)];
  for (const part of parts) await part().catch(() => undefined);
}
