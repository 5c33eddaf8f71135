import { useCallback, type KeyboardEvent } from 'react';
import { entryOf } from '../../core/values/entry-of';
import type { Selection } from '../../protocol/sheet-view';
import type { Session } from '../sheet/session';
import { useSession } from '../sheet/use-session';
import type { Geometry, Size } from './engine/geometry';
import { keyIntent, type KeyIntent } from './engine/key-intent';
import { moveCell, selectCell } from './engine/selection';
import type { Show } from './use-reveal';

/** Height of a row that a page of keys is counted in, in pixels. */
const ROW_PX = 27;

interface Surroundings {
  readonly session: Session;
  readonly geometry: Geometry;
  readonly view: Size;
  readonly move: (columns: number, rows: number, extend?: boolean) => void;
}

type IntentOf<K extends KeyIntent['kind']> = Extract<KeyIntent, { readonly kind: K }>;

/** What each intent of a key does. */
const INTENTS: { readonly [K in KeyIntent['kind']]: (around: Surroundings, intent: IntentOf<K>) => void } = {
  move: ({ move }, { columns, rows, extend }) => move(columns, rows, extend),
  page: ({ move, view, geometry }, { direction, extend }) =>
    move(0, direction * Math.max(1, Math.floor((view.height - geometry.frozenHeight) / ROW_PX) - 1), extend),
  'select-all': ({ session, geometry }) =>
    session.select({
      anchor: { column: 0, position: 0 },
      focus: { column: geometry.columnCount - 1, position: geometry.rowCount - 1 },
    }),
  edit: ({ session }) => session.beginEdit('cell'),
  type: ({ session }, { text }) => session.beginEdit('cell', text),
  clear: ({ session }) => void session.actions.editEach((area) => ({ do: 'clear-cells', area })),
  edge: ({ session }, { columns, rows, extend }) => void session.actions.moveToEdge(columns, rows, extend),
  'move-selected': ({ session }, { columns, rows }) => void session.actions.moveSelected(columns, rows),
  fill: ({ session }, { direction }) => void session.actions.fillSelection(direction),
  mark: ({ session }, { mark }) => session.actions.toggleMark(mark),
  find: ({ session }) => session.openPanel('find'),
  help: ({ session }) => session.openHelp('words'),
  undo: ({ session }) => session.undo(),
  redo: ({ session }) => session.redo(),
};

interface KeyedGrid {
  readonly geometry: Geometry;
  readonly view: Size;
  readonly show: Show;
}

/** The keys of the grid, and the move of the active cell that its editor shares. */
export function useGridKeys({ geometry, view, show }: KeyedGrid): {
  readonly move: (columns: number, rows: number, extend?: boolean) => void;
  readonly onKeyDown: (event: KeyboardEvent) => void;
} {
  const session = useSession();
  const move = useCallback(
    (columns: number, rows: number, extend = false) => {
      const { selection } = session.get();
      const { anchor, focus } = selection;
      const from = extend ? focus : anchor;
      const { left, top, right, bottom } = geometry.areaOf(from);
      // Out of merged cells by the edge that the move goes over.
      const edge = { column: columns > 0 ? right : left, position: rows > 0 ? bottom : top };
      const moved = moveCell(
        { column: columns ? edge.column : from.column, position: rows ? edge.position : from.position },
        { columns, rows },
        geometry,
      );
      const merged = geometry.areaOf(moved);
      const cell = extend ? moved : { column: merged.left, position: merged.top };
      // The first row is mostly frozen, and so in view always: who asks for the beginning wants what follows it too.
      const beginning = { left: columns === -Infinity, top: rows === -Infinity };
      show(extend ? { ...selection, focus: cell } : selectCell(cell), beginning);
    },
    [session, geometry, show],
  );

  const onKeyDown = (event: KeyboardEvent) => {
    const { editing, frame, selection } = session.get();
    if (editing?.place === 'cell' || !frame) return;
    const intent = keyIntent({
      key: event.key,
      shift: event.shiftKey,
      control: event.ctrlKey || event.metaKey,
      alt: event.altKey,
    });
    if (!intent) return;
    if (session.typeAhead(intent.kind === 'type' ? intent.text : null)) return event.preventDefault();
    if (intent.kind === 'move' && event.key === 'Tab' && leavesBy(event.shiftKey, selection, geometry)) return;
    event.preventDefault();
    // The name pairs each intent with what it does.
    const act = entryOf<(around: Surroundings, intent: KeyIntent) => void>(INTENTS, intent.kind);
    act({ session, geometry, view, move }, intent);
  };

  return { move, onKeyDown };
}

/** Tab leaves the grid from its last cell, Shift and Tab from its first. */
function leavesBy(backwards: boolean, { anchor }: Selection, { columnCount }: Geometry): boolean {
  return backwards ? anchor.column === 0 : anchor.column === columnCount - 1;
}
