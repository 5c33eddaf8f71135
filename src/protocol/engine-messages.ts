import type { WindowAsked } from './linked-table';
import type { Decimal } from '../core/values/decimal-comma';
import type { CellPosition } from '../core/sheet/cell-position';
import type { Question } from './channel';
import type { ExportFormatName } from '../core/exchange/export-formats';
import type { ExportOptions } from '../core/exchange/exported-file';
import type { ExportReport } from '../core/exchange/export-source';
import type { Advice } from '../core/rules/advice/advice';
import type { Theme } from '../core/looks/first-family';
import type { MatchCount } from '../core/rules/explain/count-matches';
import type { RuleIdea } from '../core/rules/shape/rule-idea';
import type { RankedCell } from '../core/rules/explain/ranked-tail';
import type { OutcomeTallies } from '../core/rules/explain/outcome-tallies';
import type { Reading } from '../core/rules/explain/formula-readings';
import type { RuleProfile } from '../core/rules/explain/profile-rule';
import type { Rule } from '../core/rules/shape/rule';
import type { Reads, Trial } from '../core/rules/terms';
import type { KeptRules } from '../core/rules/move/rule-set-sheet';
import type { RuleSetVersion } from '../core/rules/move/put-rule-set-to-work';
import type { RuleMeaning } from '../core/rules/shape/rule-meaning';
import type { Reader } from '../core/sharing/role';
import type { SheetDifference } from '../core/rules/explain/sheet-difference';
import type { ValuePart } from '../core/rules/explain/value-part';
import type { Operation } from '../core/sheet/change';
import type { StoredRule } from '../core/rules/shape/stored-rule';
import type { CellIds, FieldId, RowId, RuleId, SheetId } from '../core/sheet/ids';
import type { Edit } from '../core/edit/registry';
import type { FindQuery } from '../core/edit/find';
import type { Refresh, RefreshHow } from '../core/edit/refresh';
import type { AreaMeasures } from '../core/rules/explain/measure-area';
import type { GivenLook } from './packed/painted-sheet';
import type { PastQuestions } from './rule-past';
import type { ByExampleQuestions } from './by-example';
import type {
  ActiveCell,
  Area,
  Filter,
  Selection,
  LegendEntry,
  LostCell,
  PresentPerson,
  SheetFrame,
  SheetWindow,
  WindowNumber,
  WrappedText,
} from './sheet-view';

/** The requests of the page to the engine, by name, each with its answer. */
export type EngineQuestions = {
  /**
   * `at`: open a read-only snapshot at this sequence. `reads`: open the restricted view of a filler or viewer; owner
   * and editors may preview one by `as`. `who`: the key for presence, and for changes that wait to be sent.
   */
  readonly open: {
    readonly asked: {
      readonly sheet: SheetId;
      readonly theme: Theme;
      readonly at?: number;
      readonly reads?: { readonly as?: Reader['role'] };
      readonly who?: string;
      /** The sign before decimals in what this person types. */
      readonly decimal?: Decimal;
    };
    readonly answer: null;
  };
  /** Other rows of a linked table. */
  readonly 'show-rows': {
    readonly asked: { readonly window: WindowAsked };
    readonly answer: null;
  };
  readonly 'look-at': {
    readonly asked: { readonly area: Area };
    readonly answer: null;
  };
  readonly 'use-theme': {
    readonly asked: { readonly theme: Theme };
    readonly answer: null;
  };
  readonly change: {
    readonly asked: { readonly operations: readonly Operation[] };
    readonly answer: null;
  };
  /** Enters into a cell: that with these ids, wherever it stands now, or that at a position as it was `seen`. */
  readonly enter: {
    readonly asked: {
      readonly cell: CellIds | CellPosition;
      readonly input: string;
      readonly seen?: WindowNumber;
      /** The height that its row must have for it at least. */
      readonly heightPx?: number;
    };
    readonly answer: null;
  };
  /** Several edits, each of the sheet as it is before them, are one change. */
  readonly edit: {
    readonly asked: { readonly edit: Edit; readonly also?: readonly Edit[] };
    readonly answer: null;
  };
  readonly copy: {
    readonly asked: { readonly area: Area };
    readonly answer: CopiedText;
  };
  readonly paste: {
    readonly asked: {
      readonly area: Area;
      readonly token: string | null;
      /** Lines of cells with tabs between them, or the cells themselves. */
      readonly table: string | readonly (readonly string[])[];
      readonly how: PasteHow;
    };
    /** The cells that were pasted into. */
    readonly answer: Area;
  };
  readonly find: {
    readonly asked: { readonly wanted: FindQuery };
    readonly answer: readonly CellPosition[];
  };
  readonly measure: {
    readonly asked: { readonly areas: readonly Area[] };
    readonly answer: AreaMeasures;
  };
  readonly 'ask-texts': {
    readonly asked: { readonly left: number; readonly right: number };
    /** The longest texts of each field, for fitting its width. */
    readonly answer: readonly (readonly string[])[];
  };
  readonly 'ask-wrapped': {
    readonly asked: { readonly area: Area; readonly on: boolean };
    /** The texts on several lines in its rows, once its cells are wrapped, or no longer. */
    readonly answer: readonly WrappedText[];
  };
  readonly 'ask-duplicates': {
    readonly asked: object;
    /** How many records hold the same as one above them. */
    readonly answer: number;
  };
  readonly 'ask-next-record': {
    readonly asked: object;
    /** Where the next record is inserted. */
    readonly answer: number;
  };
  readonly 'ask-edge': {
    readonly asked: {
      readonly column: number;
      readonly position: number;
      readonly columns: number;
      readonly rows: number;
    };
    readonly answer: CellPosition;
  };
  readonly 'ask-values': {
    readonly asked: { readonly column: number };
    /** The values of a field in its records, each once, with its count, in rising order. */
    readonly answer: readonly { readonly text: string; readonly count: number }[];
  };
  readonly filter: {
    readonly asked: { readonly filter: Filter | null };
    readonly answer: null;
  };
  /** Keeps the rows beneath one out of this reader's view, or brings them back. */
  readonly fold: {
    readonly asked: { readonly position: number; readonly folded: boolean };
    readonly answer: null;
  };
  /** Ends a change of many cells that is being made: nothing of it stays. */
  readonly stop: {
    readonly asked: object;
    readonly answer: null;
  };
  readonly undo: {
    readonly asked: object;
    readonly answer: null;
  };
  readonly redo: {
    readonly asked: object;
    readonly answer: null;
  };
  readonly draft: {
    readonly asked: { readonly rule: StoredRule | null };
    readonly answer: null;
  };
  /** Lights what a rule gives a look, or of the cells that it reads those that hold some values. */
  readonly spotlight: {
    readonly asked: { readonly rule: RuleId | null; readonly part?: ValuePart };
    readonly answer: null;
  };
  /**
   * Sets the selection, as it was made in a window. Its active cell follows as an event, before the answer; where others
   * have moved rows or fields since that window, so does where the selection is now.
   */
  readonly select: {
    readonly asked: { readonly selection: Selection; readonly seen?: WindowNumber };
    readonly answer: null;
  };
  /** Shows what the formula of a rule gives beside the rows; null ends it. */
  readonly trial: {
    readonly asked: { readonly rule: RuleId | null };
    readonly answer: null;
  };
  /** Shows the rows of a linked table from the next one on in which a rule gives a look: its cell; null where there is none. */
  readonly 'find-row': {
    readonly asked: { readonly rule: RuleId };
    readonly answer: CellPosition | null;
  };
  readonly 'ask-match': {
    readonly asked: { readonly rule: RuleId; readonly after: number };
    readonly answer: CellPosition | null;
  };
  readonly 'ask-touching': {
    readonly asked: { readonly areas: readonly Area[] };
    /** Rules that read or paint one of the cells. */
    readonly answer: readonly RuleId[];
  };
  /** How the formula of a rule reads at some cells, one of them given. */
  readonly 'ask-readings': {
    readonly asked: { readonly rule: RuleId; readonly at: CellPosition };
    readonly answer: readonly Reading[];
  };
  /** The outcomes of a rule by field and by record. */
  readonly 'ask-tallies': {
    readonly asked: { readonly rule: RuleId };
    readonly answer: OutcomeTallies;
  };
  /** The cells either side of the edge of a rule over the greatest or least numbers. */
  readonly 'ask-tail': {
    readonly asked: { readonly rule: RuleId; readonly order: 'falling' | 'rising' };
    readonly answer: readonly RankedCell[];
  };
  /** How many cells an idea of a rule would read and match; null where it cannot work. */
  readonly 'ask-count': {
    readonly asked: { readonly idea: RuleIdea };
    readonly answer: MatchCount | null;
  };
  /** The outcomes of a rule for values by themselves. */
  readonly 'ask-trials': {
    readonly asked: { readonly rule: Rule; readonly values: readonly Trial['value'][] };
    readonly answer: readonly Trial['expect'][];
  };
  /** The diff between the open snapshot and the sheet as it is now, or after the change `to`. */
  readonly 'ask-difference': {
    readonly asked: { readonly to?: number };
    readonly answer: SheetDifference;
  };
  /** Makes copies of rules on another sheet. */
  readonly 'carry-rules': {
    readonly asked: { readonly rules: readonly RuleId[]; readonly sheet: SheetId };
    readonly answer: { readonly name: string };
  };
  /** Where a cell stands. */
  readonly 'ask-place': {
    readonly asked: { readonly cell: CellIds };
    readonly answer: CellPosition | null;
  };
  /** The look that an entry would have, where fillers see that while they type. */
  readonly judge: {
    readonly asked: { readonly cell: CellIds; readonly input: string };
    /** Null where it is hidden. */
    readonly answer: GivenLook | null;
  };
  /** The cells of some areas, up to a number, by id. */
  readonly 'ask-cells': {
    readonly asked: { readonly areas: readonly Area[]; readonly most: number };
    readonly answer: readonly CellIds[];
  };
  /** The records from the top, up to a number, each with its name. */
  readonly 'ask-records': {
    readonly asked: { readonly most: number };
    readonly answer: readonly { readonly row: RowId; readonly name: string }[];
  };
  /** Makes rules personal, or shares personal rules. */
  readonly 'own-rules': {
    readonly asked: { readonly rules: readonly RuleId[]; readonly whose: 'mine' | 'everybodys' };
    readonly answer: null;
  };
  /** Rules as a rule set keeps them. */
  readonly 'ask-rule-set': {
    readonly asked: { readonly rules: readonly RuleId[] };
    /** Null where there is no such cell. */
    readonly answer: KeptRules;
  };
  /** Uses a rule set, or replaces it by another version. */
  readonly 'use-rule-set': {
    readonly asked: { readonly set: RuleSetVersion };
    readonly answer: null;
  };
  /** Makes a file of the sheet, or of a part of it. */
  readonly export: {
    readonly asked: { readonly format: ExportFormatName; readonly options: ExportOptions; readonly area?: Area };
    readonly answer: Exported;
  };
  /** Adds the rules of a rule file after those that are there. */
  readonly 'bring-rules': {
    readonly asked: { readonly text: string };
    /** Their names, and the labels in them that no field here has. */
    readonly answer: { readonly names: readonly string[]; readonly unknown: readonly string[] };
  };
  /** Reads a newer file of the sheet's records. */
  readonly 'read-newer': {
    readonly asked: { readonly file: File };
    readonly answer: NewerFile;
  };
  /** The effect of refreshing from the file that was read last; with `do`, refreshes, as one change. */
  readonly refresh: {
    readonly asked: { readonly how: RefreshHow; readonly do: boolean };
    readonly answer: RefreshPreview;
  };
  /** Advice on the rules, without what was dismissed. */
  readonly 'ask-advice': {
    readonly asked: object;
    readonly answer: readonly Advice[];
  };
  readonly 'ask-profile': {
    readonly asked: { readonly rule: RuleId; readonly reads: Reads; readonly thresholds: readonly number[] };
    readonly answer: RuleProfile;
  };
} & ByExampleQuestions &
  PastQuestions;

export type RequestName = keyof EngineQuestions;
/** A request, as it is asked. */
export type Request = Question<EngineQuestions, RequestName>;
export type RequestOf<K extends RequestName> = Question<EngineQuestions, K>;
export type AnswerOf<K extends RequestName> = EngineQuestions[K]['answer'];

/** The common parts of a newer file and the sheet. */
export interface NewerFile {
  readonly records: number;
  /** Fields that both have. */
  readonly shared: readonly { readonly id: FieldId; readonly label: string }[];
  /** Those that together tell the file's records apart; empty where none were found. */
  readonly key: readonly FieldId[];
  /** Labels of the file that no field here has. */
  readonly unknown: readonly string[];
}

/** The effect of refreshing. */
export interface RefreshPreview extends Omit<Refresh, 'operations' | 'changed'> {
  /** How many cells become different, and the first of them. */
  readonly changed: number;
  readonly cells: Refresh['changed'];
}

/** A file, and what it does not say as the sheet does. */
export interface Exported {
  readonly file: Blob;
  readonly name: string;
  readonly report: ExportReport;
}

/** The copied cells, for other programs. */
export interface CopiedText {
  readonly text: string;
  readonly html: string;
}

export type PasteHow = 'all' | 'values' | 'looks' | 'transposed';

/** A rule that the server refused, and the saved rule that it was to replace; null where it was new. */
export interface RefusedRule {
  readonly draft: StoredRule;
  readonly kept: StoredRule | null;
}

/** Busy: the server is there, and takes changes later. */
export type LinkState = 'opening' | 'live' | 'busy' | 'offline';

/** Events that the engine sends unasked. */
export type Event =
  | { readonly kind: 'frame-changed'; readonly frame: SheetFrame }
  | {
      readonly kind: 'window-resolved';
      readonly window: SheetWindow;
      readonly frozen: SheetWindow;
      readonly number: WindowNumber;
    }
  /** The active cell, whenever it or the selection has changed; null where there is no cell. */
  | { readonly kind: 'cell-resolved'; readonly at: CellPosition; readonly cell: ActiveCell | null }
  | { readonly kind: 'rules-counted'; readonly legend: readonly LegendEntry[] }
  /** For readers without rules: the legend. */
  | { readonly kind: 'meanings-changed'; readonly meanings: readonly RuleMeaning[] }
  /** Who else has the sheet open. */
  | { readonly kind: 'others-changed'; readonly people: readonly PresentPerson[] }
  /** A lost update: somebody overwrote an entry of this person at the same time. */
  | { readonly kind: 'entries-lost'; readonly lost: readonly LostCell[] }
  | { readonly kind: 'link-changed'; readonly state: LinkState; readonly pending: number }
  /** `rule` is the one that the change was to save; absent or null where it was about something else. */
  | { readonly kind: 'change-refused'; readonly message: string; readonly rule?: RefusedRule | null }
  /** Others moved rows or fields, and the selected cells with them. */
  | { readonly kind: 'selection-moved'; readonly from: Selection; readonly to: Selection }
  | { readonly kind: 'undo-changed'; readonly undo: string | null; readonly redo: string | null }
  /** A change of many cells is being made; the share of it that is done, 0 to 1. */
  | { readonly kind: 'work-progressed'; readonly share: number }
  | { readonly kind: 'sheet-failed'; readonly message: string };
