import { memo, useDeferredValue } from 'react';
import { useTranslations } from 'use-intl';
import { lookInWords } from './look-in-words';
import { itemAt } from '../../core/values/item-at';
import type { Fill } from '../../core/looks/look';
import { ICON_SETS } from '../../core/looks/icon-sets';
import type { Selection, SheetWindow } from '../../protocol/sheet-view';
import { holdsCell, columnLetters } from '../../core/sheet/address';
import { useSession, useSessionState } from '../sheet/use-session';
import { GUTTER_PX, type Geometry, type Scroll, type Size } from './engine/geometry';
import { selectedAreas } from './engine/selection';
import { painted, sceneCell, type SceneCell } from './painter/scene';
import classes from './Mirror.module.css';

interface Props {
  readonly geometry: Geometry;
  readonly view: Size;
  readonly scroll: Scroll;
}

/**
 * The ARIA grid of what is in view, as real elements over the painted cells: for screen readers, for touch exploration
 * and for tests. It follows edits and the selection, and scrolling when it rests. It is rendered as deferred work, in
 * slices, so that it never holds up a frame of the painter.
 */
export function Mirror({ geometry, view, scroll }: Props) {
  const window = useDeferredValue(useSessionState((state) => state.window));
  const frozen = useDeferredValue(useSessionState((state) => state.frozen));
  const selection = useDeferredValue(useSessionState((state) => state.selection));
  if (!window || geometry.rowCount === 0 || view.width === 0) return null;
  return (
    <MirrorRows geometry={geometry} view={view} scroll={scroll} window={window} frozen={frozen} selection={selection} />
  );
}

interface RowsProps extends Props {
  readonly window: SheetWindow;
  readonly frozen: SheetWindow | null;
  readonly selection: Selection;
}

const MirrorRows = memo(function MirrorRows({ geometry, view, scroll, window, frozen, selection }: RowsProps) {
  const visible = geometry.visible(scroll, view);
  const frozenColumns = Math.min(geometry.frozenColumns, visible.left);
  const columns = [
    ...Array.from({ length: frozenColumns }, (_, column) => column),
    ...between(visible.left, visible.right),
  ];
  const rows: { position: number; part: SheetWindow }[] = [];
  for (let position = 0; frozen && position < geometry.frozenRows; position++) rows.push({ position, part: frozen });
  for (const position of geometry.rowsShown(Math.max(visible.top, geometry.frozenRows), visible.bottom))
    rows.push({ position, part: window });
  return rows.map(({ position, part }) => (
    <MirrorRow
      key={position}
      geometry={geometry}
      part={part}
      position={position}
      columns={columns}
      shiftX={scroll.left}
      top={geometry.rowTop(position) + (position < geometry.frozenRows ? scroll.top : 0)}
      selection={selection}
    />
  ));
});

const between = (from: number, to: number): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, at) => from + at);

interface RowProps {
  readonly geometry: Geometry;
  readonly part: SheetWindow;
  readonly position: number;
  readonly columns: readonly number[];
  /** How far frozen columns lie from their places. */
  readonly shiftX: number;
  readonly top: number;
  readonly selection: Selection;
}

function MirrorRow({ geometry, part, position, columns, shiftX, top, selection }: RowProps) {
  const t = useTranslations('grid');
  const selected = selectedAreas(selection);
  const { trial: trials } = part;
  const trial = geometry.gutterWidth > GUTTER_PX ? trials?.cells[part.rows.indexOf(position)] : null;
  return (
    <div role="row" aria-rowindex={position + 1} className={classes.row} style={{ top }}>
      {trials && trial && (
        <div
          role="rowheader"
          aria-label={t('columnPositionFormulaGives', {
            column: columnLetters(trials.column),
            position: position + 1,
            text: trial.text,
            verdict: trial.verdict,
          })}
          className={classes.cell}
          style={{
            left: GUTTER_PX + shiftX,
            width: geometry.gutterWidth - GUTTER_PX,
            height: geometry.rowHeight(position),
          }}
          data-trial={trial.verdict}
        >
          {trial.text}
        </div>
      )}
      {columns.map((column) => {
        const cell = sceneCell(part, column, position);
        const box = geometry.box({ column, position });
        const merged = geometry.mergeAt({ column, position });
        if (geometry.columnWidth(column) === 0 || (merged && (merged.left !== column || merged.top !== position)))
          return null;
        const isSelected = selected.some((area) => holdsCell(area, column, position));
        return (
          cell && (
            <MirrorCell
              key={column}
              cell={cell}
              column={column}
              position={position}
              isSelected={isSelected}
              left={column < geometry.frozenColumns ? box.x + shiftX : box.x}
              isFrozen={column < geometry.frozenColumns || position < geometry.frozenRows}
              width={box.width}
              height={box.height}
            />
          )
        );
      })}
    </div>
  );
}

interface CellProps {
  readonly cell: SceneCell;
  readonly column: number;
  readonly position: number;
  readonly isSelected: boolean;
  readonly left: number;
  /** Frozen parts lie over the parts that scroll. */
  readonly isFrozen: boolean;
  readonly width: number;
  readonly height: number;
}

/** True where two cells are the same to a reader: windows are rebuilt at each edit, most of their cells are equal. */
function isSame(one: CellProps, other: CellProps): boolean {
  const [a, b] = [one.cell, other.cell];
  return (
    one.isSelected === other.isSelected &&
    one.isFrozen === other.isFrozen &&
    one.left === other.left &&
    one.width === other.width &&
    one.height === other.height &&
    a.text === b.text &&
    a.faded === b.faded &&
    a.isHeader === b.isHeader &&
    a.isOpen === b.isOpen &&
    a.isBanded === b.isBanded &&
    a.bar?.start === b.bar?.start &&
    a.bar?.end === b.bar?.end &&
    (a.look === b.look || JSON.stringify(a.look) === JSON.stringify(b.look))
  );
}

const MirrorCell = memo(function MirrorCell({
  cell,
  column,
  position,
  isSelected,
  isFrozen,
  left,
  width,
  height,
}: CellProps) {
  const t = useTranslations('grid');
  const session = useSession();
  const { rules } = cell.look;
  const { fill, ground, text, bold, borders } = painted(cell.look);
  const shownFill = fill ?? ground;
  const icon = cell.look.properties.icon;
  const iconWords = icon ? [itemAt(ICON_SETS[icon.set], icon.index)] : [];
  const bar = cell.bar && `${Math.round(100 * Math.abs(cell.bar.end - cell.bar.start))}%`;
  const barWords = bar === undefined ? [] : [t('barOfBar', { bar })];
  const words = [cell.text || t('blank'), ...iconWords, ...barWords, ...rules].join(', ');
  const lookWords = lookInWords({ fill: shownFill, borders, isBanded: cell.isBanded }, t);
  return (
    <div
      id={`cell-${column}-${position}`}
      role={cell.isHeader && cell.text !== '' ? 'columnheader' : 'gridcell'}
      aria-colindex={column + 1}
      aria-selected={isSelected}
      aria-readonly={session.isMaker ? undefined : !cell.isOpen}
      aria-label={words}
      aria-description={lookWords}
      className={isFrozen ? `${classes.cell} ${classes.frozen}` : classes.cell}
      style={{ left, width, height }}
      data-address={`${columnLetters(column)}${position + 1}`}
      data-fill={typeof shownFill === 'string' ? shownFill : shownFill ? 'mixed' : undefined}
      data-mix={typeof shownFill === 'object' ? fillWords(shownFill) : undefined}
      data-border={borders.length > 0 ? borders.map(([side, { color }]) => `${side} ${color}`).join(', ') : undefined}
      data-banded={cell.isBanded || undefined}
      data-text={text}
      data-bold={bold === true || undefined}
      data-faded={cell.faded || undefined}
      data-icon={iconWords[0]}
      data-bar={bar}
      data-rules={rules.length ? rules.join('|') : undefined}
    >
      {cell.text}
    </div>
  );
}, isSame);

/** What a fill that is not one colour is made of. */
function fillWords(fill: Exclude<Fill, string>): string {
  if ('opacity' in fill) return `${fill.color} at ${Math.round(fill.opacity * 100)}%`;
  if ('from' in fill) return `${fill.from} to ${fill.to}`;
  return `${fill.pattern} ${fill.color}${fill.on === undefined ? '' : ` on ${fill.on}`}`;
}
