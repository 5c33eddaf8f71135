import { entryOf } from '../../values/entry-of';
import type { KindName, When } from '../kinds/registry';
import type { Problem } from '../terms';
import { sayAverage } from './say-average';
import { sayBands } from './say-bands';
import { sayCategory } from './say-category';
import { sayCompare } from './say-compare';
import { sayDate } from './say-date';
import { sayFormula } from './say-formula';
import { sayKey } from './say-key';
import { sayBar, sayIcons, sayScale } from './say-positions';
import { sayRank } from './say-rank';
import { sayRepeat } from './say-repeat';
import { sayState } from './say-state';
import { sayText } from './say-text';
import type { LinkedColumn } from './linked-table';
import type { SaidCondition, Says } from './said-condition';
import { unsaid, type SqlContext } from './sql-context';

/** How each kind says its condition in SQL. */
const SAYS = {
  compare: sayCompare,
  text: sayText,
  state: sayState,
  date: sayDate,
  average: sayAverage,
  rank: sayRank,
  repeat: sayRepeat,
  formula: sayFormula,
  change: () => unsaid('what changed, as a linked table has no history'),
  key: sayKey,
  bands: sayBands,
  category: sayCategory,
  scale: sayScale,
  bar: sayBar,
  icons: sayIcons,
} as const satisfies { [K in KindName]: Says<Extract<When, { kind: K }>> };

/** A condition in SQL over the columns that a rule reads; or why it cannot be said. */
export const sayCondition = (when: When, context: SqlContext, read: readonly LinkedColumn[]): SaidCondition | Problem =>
  (entryOf(SAYS, when.kind) as Says<When>)(when, context, read);
