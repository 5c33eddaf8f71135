import equal from 'fast-deep-equal';
import type { CellIds } from '../../core/sheet/ids';
import type { Theme } from '../../core/looks/first-family';
import type { TextSpan } from '../../core/formula/syntax/formula-tree';
import type { RuleMeaning } from '../../core/rules/shape/rule-meaning';
import type { RuleProfile } from '../../core/rules/explain/profile-rule';
import { isSameRule } from '../../core/rules/shape/is-same-rule';
import type { StoredRule } from '../../core/rules/shape/stored-rule';
import type { RuleId } from '../../core/sheet/ids';
import type { FilledCells, PointedExamples, ProposalsTold } from '../../protocol/by-example';
import type { Event, LinkState, PasteHow } from '../../protocol/engine-messages';
import type {
  Area,
  Selection,
  ActiveCell,
  LegendEntry,
  LostCell,
  PresentPerson,
  SheetFrame,
  SheetWindow,
  WindowNumber,
} from '../../protocol/sheet-view';
import type { ClipboardTable } from '../grid/clipboard/read-clipboard';
import { selectCell } from '../grid/engine/selection';

export interface Editing {
  readonly column: number;
  readonly position: number;
  readonly text: string;
  /** The cell that is edited, once its ids are known; it may move meanwhile. */
  readonly cell?: CellIds | undefined;
  /** Where the text is being typed. */
  readonly place: 'cell' | 'line';
  /** Where in a formula the next letter goes. */
  readonly caret?: number;
  /** The reference that was put in by pointing, while pointing on changes it. */
  readonly pointed?: (TextSpan & { readonly selection: Selection }) | undefined;
}

/** A rule on the bench: as it is now, and as it was kept; null where it is new. */
export interface Bench {
  readonly draft: StoredRule;
  readonly kept: StoredRule | null;
  /** True until the rule is given a name by hand: then it is named after what it says. */
  readonly namesItself: boolean;
  /** True once the legend has it as it was kept: what is not there then has been removed. */
  readonly isListed?: boolean;
  /** True where it was opened to be changed: then its first value has the focus. */
  readonly takesFocus?: boolean;
  /** True where it was last changed by dragging: its words may follow a little later then. */
  readonly isDragged?: boolean;
}

/** A rule that is made from examples: the cells pointed at, or a fill to be explained, and what fits them. */
export interface ByExample {
  readonly examples: PointedExamples;
  readonly filled: FilledCells | null;
  /** Null until the engine has answered. */
  readonly told: ProposalsTold | null;
  /** The proposal that the sheet shows. */
  readonly chosen: number;
  /** The id of the rule as the sheet shows it. */
  readonly draft: RuleId;
}

/** True where something of a rule on the bench would be lost. */
export const isUnkept = ({ draft, kept }: Bench): boolean => kept === null || !isSameRule(kept.rule, draft.rule);

export interface SessionState {
  readonly theme: Theme;
  readonly frame: SheetFrame | null;
  readonly window: SheetWindow | null;
  readonly frozen: SheetWindow | null;
  /** The number of the window. */
  readonly shownWindow: WindowNumber;
  readonly legend: readonly LegendEntry[];
  /** The legend, for readers without rules. */
  readonly meanings: readonly RuleMeaning[];
  /** Who else has the sheet open. */
  readonly others: readonly PresentPerson[];
  /** Lost updates: entries of this person that others overwrote at the same time. */
  readonly lost: readonly LostCell[];
  readonly link: LinkState;
  readonly pending: number;
  /** The next undo and redo; null where there is none. */
  readonly undo: string | null;
  readonly redo: string | null;
  readonly selection: Selection;
  /** A selection that was made for the person, and is to be brought into view. */
  readonly shown: Selection | null;
  readonly cell: ActiveCell | null;
  readonly editing: Editing | null;
  readonly bench: Bench | null;
  readonly byExample: ByExample | null;
  /** Rules that were put aside before they were kept, the last one first. */
  readonly drafts: readonly Bench[];
  readonly profile: RuleProfile | null;
  readonly spotlight: RuleId | null;
  /** Rules of the legend that are chosen to be changed together. */
  readonly chosen: readonly RuleId[];
  /** True where the legend is shown as those see it who only read. */
  readonly isReading: boolean;
  /**
   * The open dialog about some rules: the group to put them in, the sheet to carry them to, the rule set to save them
   * in; or which set to use.
   */
  readonly asked: { readonly what: 'group' | 'sheet' | 'set' | 'use-set'; readonly rules: readonly RuleId[] } | null;
  /** True where the legend shows only the rules that read or paint a selected cell. */
  readonly onlyTouching: boolean;
  readonly message: string | null;
  /** True while something that was asked for takes long. */
  readonly isBusy: boolean;
  /** The share of it that is done, where that is known. */
  readonly progress: number | null;
  /** The last paste and its place, so that it can be repeated in another way. */
  readonly pasted: { readonly table: ClipboardTable; readonly area: Area; readonly how: PasteHow } | null;
  /** The topic that the help is open at; null while it is closed. */
  readonly help: string | null;
  /** What was typed for a panel with a line to type in, before that had the keys. */
  readonly ahead: string;
  /** The open panel beside the grid. */
  readonly panel: 'style' | 'find' | 'values' | 'new-rule' | 'share' | 'files' | 'commands' | null;
  readonly failure: string | null;
}

/** Lost updates that are listed at once. */
const MAX_LOST = 5;

/** Before the sheet is open. */
export const START: SessionState = {
  theme: 'light',
  frame: null,
  window: null,
  frozen: null,
  shownWindow: 0,
  legend: [],
  meanings: [],
  others: [],
  lost: [],
  link: 'opening',
  pending: 0,
  undo: null,
  redo: null,
  selection: selectCell({ column: 0, position: 0 }),
  shown: null,
  cell: null,
  editing: null,
  bench: null,
  byExample: null,
  drafts: [],
  profile: null,
  spotlight: null,
  chosen: [],
  isReading: false,
  asked: null,
  onlyTouching: false,
  message: null,
  isBusy: false,
  progress: null,
  pasted: null,
  panel: null,
  ahead: '',
  help: null,
  failure: null,
};

export const idsOf = ({ row, field }: CellIds): CellIds => ({ row, field });

/** The change of the screen by an event of the engine. */
export function stateAfter(
  event: Event,
  { selection, editing, lost, cell, legend }: SessionState,
): Partial<SessionState> {
  switch (event.kind) {
    case 'selection-moved': {
      if (JSON.stringify(selection) !== JSON.stringify(event.from)) return {};
      const { anchor } = event.to;
      const moves =
        editing && editing.column === selection.anchor.column && editing.position === selection.anchor.position;
      return { selection: event.to, ...(moves ? { editing: { ...editing, ...anchor } } : {}) };
    }
    case 'frame-changed':
      return { frame: event.frame };
    case 'window-resolved':
      return { window: event.window, frozen: event.frozen, shownWindow: event.number };
    case 'cell-resolved': {
      const { anchor } = selection;
      // The selection has moved on: its own cell follows.
      if (event.at.column !== anchor.column || event.at.position !== anchor.position) return {};
      // Typing may begin before its ids are known.
      const isEdited = editing?.column === anchor.column && editing.position === anchor.position;
      return {
        ...(equal(event.cell, cell) ? {} : { cell: withSameStyle(event.cell, cell) }),
        ...(event.cell && isEdited && !editing.cell ? begunOver(event.cell, editing) : {}),
      };
    }
    case 'rules-counted':
      return { legend: withSameItems(event.legend, legend) };
    case 'others-changed':
      return { others: event.people };
    case 'entries-lost':
      return { lost: [...lost, ...event.lost].slice(-MAX_LOST) };
    case 'meanings-changed':
      return { meanings: event.meanings };
    case 'link-changed':
      return { link: event.state, pending: event.pending };
    case 'undo-changed':
      return { undo: event.undo, redo: event.redo };
    case 'change-refused':
      return { message: event.message };
    case 'work-progressed':
      return { progress: event.share };
    case 'sheet-failed':
      return { failure: event.message };
  }
}

/** What becomes of text that was typed over a cell before it was known: a locked cell says why it takes none. */
const begunOver = (cell: ActiveCell, editing: Editing): Partial<SessionState> =>
  cell.lock === null ? { editing: { ...editing, cell: idsOf(cell) } } : { editing: null, message: cell.lock };

/** The same style object while it is equal: what shows the style need not render again. */
const withSameStyle = (cell: ActiveCell | null, before: ActiveCell | null): ActiveCell | null =>
  cell && before && equal(cell.style, before.style) ? { ...cell, style: before.style } : cell;

/** The same items where they are equal, and the same list where all are: what shows them need not render again. */
function withSameItems<T>(items: readonly T[], before: readonly T[]): readonly T[] {
  const kept = items.map((item, at) => {
    const known = before[at];
    return known !== undefined && equal(known, item) ? known : item;
  });
  return kept.length === before.length && kept.every((item, at) => item === before[at]) ? before : kept;
}

/** A picture of values with the same bins where these are equal. */
export const withSameBins = (answer: RuleProfile, before: RuleProfile): RuleProfile => ({
  ...answer,
  profile: { ...answer.profile, bins: withSameItems(answer.profile.bins, before.profile.bins) },
});
