import type { CSSProperties } from 'react';
import { memo } from 'react';
import type { SheetWindow } from '../../protocol/engine-messages';
import { columnLetters } from '../../core/sheet/address';
import { useSessionState } from '../sheet/use-session';
import { ROW_PX, type Geometry, type Scroll, type Size } from './engine/geometry';
import { selectedArea } from './engine/selection';
import { sceneCell, type SceneCell } from './painter/scene';
import classes from './Grid.module.css';

interface Props {
  readonly geometry: Geometry;
  readonly view: Size;
  readonly scroll: Scroll;
}

/**
 * The ARIA grid of what is in view, as real elements over the painted cells: for screen readers, for touch exploration
 * and for tests. It follows edits and the selection at once, and scrolling when it rests.
 */
export const Mirror = memo(function Mirror({ geometry, view, scroll }: Props) {
  const window = useSessionState((state) => state.window);
  const frozen = useSessionState((state) => state.frozen);
  const selection = useSessionState((state) => state.selection);
  if (!window || geometry.rowCount === 0 || view.width === 0) return null;
  const visible = geometry.visible(scroll, view);
  const selected = selectedArea(selection);
  const rows: { position: number; part: SheetWindow }[] = [];
  for (let position = 0; frozen && position < geometry.frozenRows; position++) rows.push({ position, part: frozen });
  for (let position = Math.max(visible.top, geometry.frozenRows); position <= visible.bottom; position++) rows.push({ position, part: window });
  return rows.map(({ position, part }) => (
    <div
      key={position}
      role="row"
      aria-rowindex={position + 1}
      className={classes.row}
      style={{ top: geometry.rowTop(position) + (position < geometry.frozenRows ? scroll.top : 0) }}
    >
      {Array.from({ length: visible.right - visible.left + 1 }, (_, at) => {
        const column = visible.left + at;
        const cell = sceneCell(part, column, position);
        const isSelected = column >= selected.left && column <= selected.right && position >= selected.top && position <= selected.bottom;
        return (
          cell && (
            <MirrorCell
              key={column}
              cell={cell}
              column={column}
              position={position}
              isSelected={isSelected}
              style={{ left: geometry.columnLeft(column), width: geometry.columnWidth(column), height: ROW_PX }}
            />
          )
        );
      })}
    </div>
  ));
});

interface CellProps {
  readonly cell: SceneCell;
  readonly column: number;
  readonly position: number;
  readonly isSelected: boolean;
  readonly style: CSSProperties;
}

function MirrorCell({ cell, column, position, isSelected, style }: CellProps) {
  const { properties, rules } = cell.look;
  const words = [cell.text || 'blank', ...rules].join(', ');
  return (
    <div
      id={`cell-${column}-${position}`}
      role={cell.isHeader ? 'columnheader' : 'gridcell'}
      aria-colindex={column + 1}
      aria-selected={isSelected}
      aria-label={words}
      className={classes.cell}
      style={style}
      data-address={`${columnLetters(column)}${position + 1}`}
      data-fill={typeof properties.fill === 'string' ? properties.fill : properties.fill ? 'mixed' : undefined}
      data-text={properties.text as string | undefined}
      data-bold={properties.bold === true || undefined}
      data-faded={cell.faded || undefined}
      data-rules={rules.length ? rules.join('|') : undefined}
    >
      {cell.text}
    </div>
  );
}
