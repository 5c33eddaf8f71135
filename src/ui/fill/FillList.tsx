import { useEffect, useRef, type KeyboardEvent } from 'react';
import { useTranslations } from 'use-intl';
import { itemAt } from '../../core/values/item-at';
import type { SheetFrame, SheetWindow, ShownField } from '../../protocol/sheet-view';
import { sceneCell, type SceneCell } from '../grid/painter/scene';
import { useSession, useSessionState } from '../sheet/use-session';
import classes from './Fill.module.css';
import { FillInput } from './FillInput';

/** Records that are shown as a list; of longer sheets the rest is on the sheet itself. */
const MAX_ROWS = 500;

/** A sheet for filling in on a narrow screen: record by record, the question over its answer. */
export function FillList() {
  const t = useTranslations('fill');
  const session = useSession();
  const frame = useSessionState((state) => state.frame);
  const window = useSessionState((state) => state.window);
  const list = useRef<HTMLDivElement>(null);
  const [rows, columns] = [Math.min(frame?.rowCount ?? 0, MAX_ROWS), frame?.fields.length ?? 0];
  useEffect(() => {
    if (rows > 0) session.setViewport({ left: 0, top: 0, right: columns - 1, bottom: rows - 1 });
  }, [session, rows, columns]);

  // Enter goes on to the next answer, as it goes on to the next cell on the sheet.
  const onKeyDown = (event: KeyboardEvent) => {
    const { target } = event;
    if (event.key !== 'Enter' || event.nativeEvent.isComposing || !(target instanceof HTMLElement)) return;
    const inputs = [...(list.current?.querySelectorAll<HTMLElement>('input, select') ?? [])];
    const next = inputs[inputs.indexOf(target) + 1];
    if (next) next.focus();
    else target.blur();
    event.preventDefault();
  };

  if (!frame || !window || window.area.bottom < rows - 1) return <p className={classes.wait}>{t('opening')}</p>;
  const rowsShown = window.rows.map((position, at) => ({
    position,
    role: itemAt(window.roles, at),
    cells: cellsOf(frame, window, position),
  }));
  // Where records ask something, those that ask nothing yet are room for more, and not for filling in.
  const asks = rowsShown.some(
    ({ role, cells }) => role === 'record' && cells.some(({ cell }) => !cell.isOpen && cell.text !== ''),
  );
  const isRoom = (cells: RowCells): boolean => asks && cells.every(({ cell }) => cell.text === '');
  return (
    <div ref={list} className={classes.list} onKeyDown={onKeyDown}>
      {rowsShown.map((row) => !isRoom(row.cells) && <FillRow key={row.position} {...row} />)}
      <Progress
        cells={rowsShown.flatMap((row) => (isRoom(row.cells) ? [] : row.cells))}
        isWhole={frame.rowCount <= MAX_ROWS}
      />
      {frame.rowCount > MAX_ROWS && <p className={classes.wait}>{t('firstMAXROWSRows', { MAX_ROWS })}</p>}
    </div>
  );
}

type RowCells = readonly { readonly field: ShownField; readonly column: number; readonly cell: SceneCell }[];

/** The cells of a row that are in view, from the left. */
const cellsOf = (frame: SheetFrame, window: SheetWindow, position: number): RowCells =>
  frame.fields.flatMap((field, column) => {
    const cell = sceneCell(window, column, position);
    return cell && !field.hidden ? [{ field, column, cell }] : [];
  });

interface ProgressProps {
  readonly cells: RowCells;
  /** Whether these are the cells of the whole sheet. */
  readonly isWhole: boolean;
}

/** How much is filled in, for those who want to know whether they are done. */
function Progress({ cells, isWhole }: ProgressProps) {
  const t = useTranslations('fill');
  const isSaved = useSessionState(({ link, pending }) => link === 'live' && !pending);
  const open = cells.filter(({ cell }) => cell.isOpen);
  const filled = open.filter(({ cell }) => cell.text !== '').length;
  const asked = open.length;
  if (asked === 0) return null;
  return (
    <p className={classes.wait} role="status">
      {isWhole && filled === asked && isSaved ? t('allFilledIn', { asked }) : t('filledOfAsked', { filled, asked })}
    </p>
  );
}

interface RowProps {
  readonly position: number;
  readonly cells: RowCells;
  readonly role: SheetWindow['roles'][number];
}

function FillRow({ position, cells, role }: RowProps) {
  const t = useTranslations('fill');
  const given = cells.filter(({ cell }) => !cell.isOpen && cell.text !== '');
  const open = cells.filter(({ cell }) => cell.isOpen);
  if (open.length === 0) {
    const words = given.map(({ cell }) => cell.text).join(' · ');
    if (role === 'header' || words === '') return null;
    return role === 'group' ? (
      <h2 className={classes.group}>{words}</h2>
    ) : (
      <p className={classes.directions}>{words}</p>
    );
  }
  const [prompt, ...more] = given;
  return (
    <section className={classes.record} aria-label={prompt?.cell.text ?? t('rowPosition', { position: position + 1 })}>
      {prompt && <p className={classes.prompt}>{prompt.cell.text}</p>}
      {more.map(({ field, cell }) => (
        <p key={field.id} className={classes.fact}>
          {field.label}: {cell.text}
        </p>
      ))}
      {open.map(({ field, column, cell }) => (
        <FillInput key={field.id} field={field} column={column} position={position} cell={cell} />
      ))}
    </section>
  );
}
