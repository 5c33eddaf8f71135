import type { Crossing } from '../core/findings/rule-watch';
import type { RuleId, SheetId } from '../core/sheet/ids';

/** Findings in one answer. */
export const FINDINGS_PAGE = 60;

/** A crossing with what the cell showed before. */
export interface NewFinding extends Crossing {
  readonly before: string;
}

/** A finding as it is stored and sent. */
export interface Finding extends NewFinding {
  readonly id: number;
  readonly sheet: SheetId;
  readonly sheetName: string;
  /** The change that did it; null for the clock. */
  readonly sequence: number | null;
  /** The name of who made that change; null for the clock. */
  readonly by: string | null;
  /** Milliseconds of the Unix epoch. */
  readonly at: number;
  readonly isSeen: boolean;
  readonly notes: readonly FindingNote[];
}

export interface FindingNote {
  readonly by: string;
  readonly text: string;
  readonly at: number;
}

/** A rule with a summary of its findings. */
export interface FollowedRule {
  readonly sheet: SheetId;
  readonly id: RuleId;
  readonly name: string;
  readonly unseen: number;
  readonly isMuted: boolean;
  readonly isImportant: boolean;
  /** How many cells had its look, and from when on (milliseconds of the Unix epoch), the oldest first. */
  readonly counts: readonly (readonly [at: number, painted: number])[];
}

export type Digest = 'none' | 'hour' | 'day';

/** The feed of a sheet, or of all sheets of a person. */
export interface FindingFeed {
  readonly findings: readonly Finding[];
  readonly rules: readonly FollowedRule[];
}

/** How a sheet is followed. */
export interface FollowSettings {
  readonly digest: Digest;
  /** A local address to which findings are posted; null for none. */
  readonly hook: string | null;
}

/** Which findings are wanted, the newest first. */
export interface FindingQuery {
  readonly before?: number | undefined;
  readonly rule?: RuleId | undefined;
  readonly only?: 'unseen' | undefined;
}
