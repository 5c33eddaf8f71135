import type { Theme } from '../core/looks/first-family';
import type { RowId, RuleId, SheetId } from '../core/sheet/ids';
import type { Area, Filter } from '../protocol/sheet-view';
import type { Connection } from './link/connection';
import type { PastReader } from './link/past-reader';
import type { PersonalRules } from './link/personal-rules';
import type { CellLock } from './replica/cell-lock';
import type { Replica } from './replica/replica';
import type { Spotlight } from './view/window-of';

/** The sheet that is open, and what serves it. */
export interface OpenedSheet {
  readonly id: SheetId;
  readonly name: string;
  readonly replica: Replica;
  /** Null where the sheet stands still: one as it was. It stays while the sheet is loaded again. */
  readonly connection: Connection | null;
  /** Null for readers without rules. */
  readonly past: PastReader | null;
  /** Rules that only this reader sees; null where there can be none. */
  readonly personal: PersonalRules | null;
  /** What may be entered, where that is not everything. */
  readonly lock: CellLock | null;
}

/** How the page shows it. */
export interface Shown {
  theme: Theme;
  area: Area;
  spotlight: Spotlight | null;
  /** The rule whose formula is tried beside the rows. */
  tried: RuleId | null;
  /** The records that this reader filters. */
  filter: Filter | null;
  /** Rows whose rows beneath this reader folds away. */
  readonly folded: Set<RowId>;
}
