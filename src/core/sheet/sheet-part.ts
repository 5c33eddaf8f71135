import type { PlainLook } from '../looks/look';
import type { FieldId, PartId, RowId, RuleId } from './ids';

/** A name for cells, to be used in formulas in their place. */
export interface NamedRange {
  /** The name as `nameKey` gives it, so that a name is unique. */
  readonly id: PartId;
  readonly kind: 'name';
  /**
   * Letters, digits, points and low lines, with a letter first; no address such as B2. Upper and lower case are the
   * same.
   */
  readonly name: string;
  /** Its meaning, as a formula that is one reference, such as `=$B$2:$B$9`. */
  readonly refersTo: string;
}

/** Cells shown as one: the first shows its content, the others keep theirs out of sight. */
export interface Merge {
  readonly id: PartId;
  readonly kind: 'merge';
  readonly top: RowId;
  readonly bottom: RowId;
  readonly left: FieldId;
  readonly right: FieldId;
}

/** Fields from the first up to this one stay in view while the others scroll. */
export interface Freeze {
  readonly id: 'freeze';
  readonly kind: 'freeze';
  readonly through: FieldId;
}

/** Every other record is shaded, in whatever order they stand. */
export interface Bands {
  readonly id: 'bands';
  readonly kind: 'bands';
}

/** Advice that somebody has dismissed, and why. */
export interface Dismissal {
  /** The code of the advice and the rules it is about, as `adviceKey` gives them. */
  readonly id: PartId;
  readonly kind: 'dismissal';
  readonly reason: string;
}

/** A moment of the sheet that has a name: after the change with a sequence of its log, 0 for as the sheet was made. */
export interface Snapshot {
  /** As `snapshotKey` gives it, so that a name of a moment is unique. */
  readonly id: PartId;
  readonly kind: 'snapshot';
  readonly name: string;
  readonly sequence: number;
}

/** When fillers see the outcomes of their answers. */
export const OUTCOME_TIMES = ['typing', 'leaving', 'withheld'] as const;
export type OutcomeTime = (typeof OUTCOME_TIMES)[number];

/** The settings for fillers. */
export interface Filling {
  readonly id: 'filling';
  readonly kind: 'filling';
  /** Fields in whose records they type. */
  readonly open: readonly FieldId[];
  /** Single cells in which they type as well. */
  readonly openCells: readonly { readonly row: RowId; readonly field: FieldId }[];
  /** Fields that they never get, besides hidden ones and those of answer keys. */
  readonly kept: readonly FieldId[];
  readonly outcomes: OutcomeTime;
  /** Whether they see what is not their own of the open cells. */
  readonly showsOthers: boolean;
}

/** A rule set that the sheet uses: at which version, and which of its rules is which here. */
export interface RuleSetUse {
  /** As `ruleSetKey` gives it. */
  readonly id: PartId;
  readonly kind: 'rule-set';
  readonly set: string;
  readonly name: string;
  readonly version: number;
  /** The sheet's own rule by the id that it has in the set. */
  readonly rules: Readonly<Record<RuleId, RuleId>>;
}

/** A look that a sheet has saved, or one of the first family as the sheet has changed it. */
export interface LookPart {
  /** `look-` and the id of the look. */
  readonly id: PartId;
  readonly kind: 'look';
  readonly name: string;
  readonly look: PlainLook;
  /** In the dark theme, where it is another. */
  readonly dark?: PlainLook;
}

/** Items that belong to a sheet besides its rows, fields and rules. */
export type SheetPart = NamedRange | Merge | Freeze | Bands | Dismissal | LookPart | Snapshot | Filling | RuleSetUse;
export type SheetPartOf<K extends SheetPart['kind']> = Extract<SheetPart, { readonly kind: K }>;

/** The part by which a sheet uses a rule set. */
export const ruleSetKey = (set: string): PartId => `rule-set ${set}`;

/** The key of a named moment's name, whatever its case. */
export const snapshotKey = (name: string): PartId => `snapshot ${name.trim().toLowerCase()}`;

/** The key of a name, whatever its case. */
export const nameKey = (name: string): PartId => name.toLowerCase();
