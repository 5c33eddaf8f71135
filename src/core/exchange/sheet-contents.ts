import type { StoredRow } from '../sheet/change';
import type { StoredRule } from '../rules/shape/stored-rule';
import type { Field } from '../sheet/field';
import type { SheetPart } from '../sheet/sheet-part';
import type { SheetSettings } from '../sheet/sheet-settings';

/** Everything of a sheet besides its rows. */
export interface SheetHead {
  readonly name: string;
  readonly settings?: SheetSettings;
  readonly fields: readonly Field[];
  readonly rules: readonly StoredRule[];
  readonly parts?: readonly SheetPart[];
}

/** All that a sheet holds, wherever it comes from or goes. */
export interface SheetContents extends SheetHead {
  readonly rows: readonly StoredRow[];
}
