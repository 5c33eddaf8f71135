import type { Selection } from '../../protocol/sheet-view';
import type { Session } from '../sheet/session';
import type { Geometry } from './engine/geometry';
import type { Hit } from './engine/hit-test';
import { selectCell, selectedAreas } from './engine/selection';

interface Modifiers {
  readonly shiftKey: boolean;
  readonly ctrlKey?: boolean;
  readonly metaKey?: boolean;
}

/** Selects the cell, field or row that was hit; with Shift up to it, with Control as well as what is selected. */
export function selectHit(
  hit: Hit,
  { shiftKey, ctrlKey = false, metaKey = false }: Modifiers,
  { session, geometry }: { session: Session; geometry: Geometry },
): void {
  const before = session.get().selection;
  const { anchor } = before;
  // Control, or command on machines that use it, adds a range to what is selected.
  const also = ctrlKey || metaKey ? selectedAreas(before).toReversed() : shiftKey ? (before.also ?? []) : [];
  const select = (selection: Selection) => session.select(also.length ? { ...selection, also } : selection);
  const last = { column: geometry.columnCount - 1, position: geometry.rowCount - 1 };
  switch (hit.kind) {
    case 'cell':
      return select(shiftKey ? { anchor, focus: hit.cell } : selectCell(hit.cell));
    case 'column':
      return select({
        anchor: { column: shiftKey ? anchor.column : hit.column, position: 0 },
        focus: { column: hit.column, position: last.position },
      });
    case 'row':
      return select({
        anchor: { column: 0, position: shiftKey ? anchor.position : hit.position },
        focus: { column: last.column, position: hit.position },
      });
    case 'corner':
      return session.select({ anchor: { column: 0, position: 0 }, focus: last });
    default:
  }
}
