import { lazy } from 'react';

const load = () => import('./FormulaEditor');

/** The formula editor, which is fetched when it is wanted: most of a day's typing is plain values. */
export const LazyFormulaEditor = lazy(load);

/** The editor of formulas in rules. */
export const LazyRuleFormula = lazy(() => import('./RuleFormula'));

/** Fetches the formula editor ahead of time, once the sheet is up. */
export const prepareFormulaEditor = (): void => void load();
