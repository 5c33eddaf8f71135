import type { Event } from '../protocol/engine-messages';
import type { News } from './news';
import type { OpenedSheet, Shown } from './opened-sheet';
import type { HeldSelection } from './replica/held-selection';
import type { SeenWindows } from './replica/seen-windows';
import type { UndoStack } from './replica/undo-stack';
import { activeCell } from './view/active-cell';
import { frameOf, frozenRows } from './view/frame-of';
import { legendOf } from './view/legend-of';
import { rowHeights } from './view/row-heights';
import { windowOf } from './view/window-of';

/** What the events are made of. */
interface Sources {
  readonly opened: OpenedSheet;
  readonly shown: Shown;
  readonly selected: HeldSelection;
  readonly seen: SeenWindows;
  readonly undo: UndoStack;
}

/**
 * Reports to the page what has changed. All that one message or one batch of changes brings is reported once, as soon
 * as it is in.
 */
export class PageEvents {
  private readonly news = new Set<News>();
  /** The last frame that was sent: most edits leave it as it is. */
  private lastFrame = '';
  private lastOthers = '[]';

  /** `sources` is null while no sheet is open. */
  constructor(
    private readonly sources: () => Sources | null,
    private readonly tellAll: (events: readonly Event[], transfer: Transferable[]) => void,
  ) {}

  note(...news: readonly News[]): void {
    const isFirst = this.news.size === 0;
    for (const item of news) this.news.add(item);
    if (news.includes('selection')) this.sources()?.seen.outdate();
    if (isFirst) queueMicrotask(() => this.flush());
  }

  private flush(): void {
    const news = new Set(this.news);
    this.news.clear();
    const sources = this.sources();
    if (!sources) return;
    const { opened, selected, undo } = sources;
    const { replica, connection } = opened;
    const events: Event[] = [];
    const frame = news.has('frame') ? frameOf(replica, opened.name, sources.shown) : undefined;
    if (frame && JSON.stringify(frame) !== this.lastFrame) {
      this.lastFrame = JSON.stringify(frame);
      events.push({ kind: 'frame-changed', frame });
    }
    const moved = news.has('selection') ? selected.moved(replica.sheet) : null;
    if (moved) events.push({ kind: 'selection-moved', ...moved });
    // What changes counts may change why a cell looks as it does.
    if (moved || news.has('cell') || news.has('legend')) events.push(...cellEvent(sources));
    const window = news.has('window') ? windowEvent(sources) : null;
    if (window) events.push(window);
    if (news.has('legend')) {
      opened.past?.follow(replica);
      replica.whole?.follow(replica.evaluation.activeRules.map(({ rule }) => rule));
      events.push({ kind: 'rules-counted', legend: legendOf(replica) });
    }
    if (news.has('undo')) events.push({ kind: 'undo-changed', ...undo.next });
    if (news.has('link') && connection) events.push(connection.standing);
    // Where others are moves with the rows and fields.
    const people = news.has('others') || news.has('frame') ? connection?.others(replica.sheet) : undefined;
    if (people && JSON.stringify(people) !== this.lastOthers) {
      this.lastOthers = JSON.stringify(people);
      events.push({ kind: 'others-changed', people });
    }
    this.tellAll(events, window ? [...buffersOf(window.window), ...buffersOf(window.frozen)] : []);
  }
}

/** The active cell; nothing before a selection is known. */
function cellEvent({ opened: { replica, lock }, selected: { activePosition: at } }: Sources): Event[] {
  return at === null ? [] : [{ kind: 'cell-resolved', at, cell: activeCell(replica, at, lock) }];
}

type WindowEvent = Extract<Event, { readonly kind: 'window-resolved' }>;

/** The cells in view, and those of the rows that stay in view. */
function windowEvent({ opened: { replica, lock }, shown, selected, seen }: Sources): WindowEvent {
  const options = {
    spotlight: shown.spotlight,
    heights: rowHeights(replica, shown),
    trial: { rule: shown.tried, column: selected.activePosition?.column ?? 0 },
    lock,
  };
  const top = { ...shown.area, top: 0, bottom: frozenRows(replica.sheet) - 1 };
  const window = windowOf(replica, shown.area, options);
  const frozen = windowOf(replica, top, options);
  return {
    kind: 'window-resolved',
    window,
    frozen,
    number: seen.sent(replica.sheet, [...frozen.rows, ...window.rows]),
  };
}

const buffersOf = ({ looks, bars, aligns, spotlit, open, banded }: WindowEvent['window']): Transferable[] =>
  [looks, bars, aligns, spotlit, open, banded].map(({ buffer }) => buffer);
