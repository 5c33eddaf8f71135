import type { Sheet } from '../../core/sheet/sheet';
import { itemAt } from '../../core/values/item-at';
import { lookValue } from '../../core/looks/look';
import type { Style } from '../../core/looks/style';
import { TAG } from '../../core/values/cell-value';
import { shownAt, shownBy } from '../../core/sheet/shown-cell';
import type { ResolvedLook } from '../../core/rules/evaluate/resolver';
import { trialCell, trialColumn } from '../../core/rules/explain/trial-cell';
import { isInPart, type ValuePart } from '../../core/rules/explain/value-part';
import { BAR_SHARES, type Area, type PaintedLook, type RowHeights, type SheetWindow } from '../../protocol/sheet-view';
import type { CellLock } from '../replica/cell-lock';
import type { Replica } from '../replica/replica';

/** The spotlit cells: all that a rule gives a look, or a part of the cells that it reads. */
export interface Spotlight {
  readonly rule: string;
  readonly part: ValuePart | undefined;
}

export interface WindowOptions {
  readonly spotlight: Spotlight | null;
  readonly heights: RowHeights;
  /** The cells that the reader may enter, where that is not everything. */
  readonly lock: CellLock | null;
  /** The rule whose formula is tried beside the rows, and the column that it is about where the rule reads it. */
  readonly trial: { readonly rule: string | null; readonly column: number };
}

/**
 * The part of a sheet under an area, ready to paint. Cost: a few microseconds a cell, and nothing for the rest of the
 * sheet.
 */
export function windowOf(
  replica: Replica,
  asked: Area,
  { spotlight, heights, trial: tried, lock }: WindowOptions,
): SheetWindow {
  const { sheet, evaluation } = replica;
  const area = clip(asked, sheet.rowCount, sheet.fields.length);
  const width = Math.max(0, area.right - area.left + 1);
  const rows = rowsInView(area, heights);
  const height = rows.length;
  const texts: string[] = [];
  const looks = new Uint16Array(width * height);
  const aligns = new Uint8Array(width * height);
  const spotlit = new Uint8Array(spotlight === null ? 0 : width * height);
  const open = new Uint8Array(lock?.marksOpen ? width * height : 0);
  const names = replica.lookNames();
  // Bars are as many as their cells: what they have in common is one look, and their lengths go apart.
  let bars = new Float32Array(0);
  const indexOf = new Map<ResolvedLook | string, Map<string, number>>();
  const table: PaintedLook[] = [];
  const indexOfLook = (look: ResolvedLook, style: Style | undefined): number => {
    const alike = look.properties.has('bar') ? keyWithoutShares(look) : look;
    const styles = indexOf.get(alike) ?? new Map<string, number>();
    indexOf.set(alike, styles);
    const key = style ? JSON.stringify(style) : '';
    const known = styles.get(key);
    if (known !== undefined) return known;
    const index =
      table.push({
        properties: Object.fromEntries(look.properties),
        rules: look.rules.map((rule) => itemAt(names, rule)),
        style: style ?? {},
      }) - 1;
    styles.set(key, index);
    return index;
  };
  const isLit = spotlight ? litBy(replica, spotlight) : undefined;
  let at = 0;
  for (const position of rows) {
    const slot = sheet.slotAt(position);
    const isTop = sheet.roleAt(slot) === 'header' || sheet.roleAt(slot) === 'title';
    for (let column = area.left; column <= area.right; column++, at++) {
      const look = replica.resolvedLook(column, slot);
      looks[at] = indexOfLook(look, sheet.styleAt(column, slot));
      const bar = lookValue(look.properties, 'bar');
      if (bar) {
        if (bars.length === 0) bars = new Float32Array(width * height * BAR_SHARES).fill(NaN);
        bars.set([bar.start, bar.end, bar.axis ?? NaN], at * BAR_SHARES);
      }
      texts.push(textAt(sheet, { column, slot }, look));
      const tag = sheet.column(column).tags[slot];
      aligns[at] = tag === TAG.number || tag === TAG.date ? 1 : tag === TAG.logical || tag === TAG.error ? 2 : 0;
      if (open.length > 0 && lock?.lockOf(column, slot) === null) open[at] = 1;
      if (isLit) spotlit[at] = isTop || isLit(column, slot) ? 1 : 0;
    }
  }
  const slots = rows.map((position) => sheet.slotAt(position));
  const trial = trialOf(evaluation, { ...tried, slots });
  return { area, rows, texts, looks, bars, lookTable: table, aligns, spotlit, open, ...rowFacts(sheet, rows), trial };
}

/** What is painted of whole rows: their shading, their levels and their roles. */
function rowFacts(sheet: Sheet, rows: readonly number[]): Pick<SheetWindow, 'banded' | 'levels' | 'roles'> {
  const isBanded = sheet.parts.get('bands') !== undefined;
  const [first, last] = isBanded ? [sheet.recordSpan().first, sheet.lastFilledRow()] : [0, -1];
  const isShaded = (position: number): boolean =>
    position <= last && (position - first) % 2 === 1 && sheet.roleAt(sheet.slotAt(position)) === 'record';
  const banded = isBanded ? Uint8Array.from(rows, (position) => Number(isShaded(position))) : new Uint8Array(0);
  const levelOf = (position: number): number => sheet.rowFormat(sheet.slotAt(position)).level ?? 0;
  const levels = rows.some((position) => levelOf(position) > 0) ? Uint8Array.from(rows, levelOf) : new Uint8Array(0);
  const roles = rows.map((position) => sheet.roleAt(sheet.slotAt(position)));
  return { banded, levels, roles };
}

function litBy(replica: Replica, { rule, part }: Spotlight): (column: number, slot: number) => boolean {
  if (!part) return replica.shownBy(rule) ?? (() => false);
  const { activeRules, sheet } = replica.evaluation;
  const found = activeRules.find((candidate) => candidate.rule.id === rule);
  if (!found) return () => false;
  const reads = new Map(found.read.map(({ column, slots }) => [column, slots]));
  return (column, slot) => (reads.get(column)?.has(slot) ?? false) && isInPart(sheet, part, { column, slot });
}

function trialOf(
  { activeRules }: Replica['evaluation'],
  { rule, column, slots }: { rule: string | null; column: number; slots: readonly number[] },
) {
  const found = activeRules.find((candidate) => candidate.rule.id === rule);
  const at = found && trialColumn(found, column);
  if (!found || at === undefined || found.formulaValue(at, slots[0] ?? 0) === undefined) return null;
  return { column: at, cells: slots.map((slot) => trialCell(found, at, slot)) };
}

/**
 * Numbers the objects among values of looks: rules share them between cells, so that the same object means the same
 * value.
 */
const numberOf = new WeakMap<object, number>();
let numbered = 0;

/** The key of a look, its bar's length aside. */
function keyWithoutShares({ properties, rules }: ResolvedLook): string {
  let key = rules.join(',');
  const bar = lookValue(properties, 'bar');
  for (const [property, value] of properties) {
    if (typeof value !== 'object' || value === null) key += `|${property}=${String(value)}`;
    else if (property === 'bar') key += `|${bar?.color}${bar?.style}`;
    else {
      const known = numberOf.get(value) ?? ++numbered;
      numberOf.set(value, known);
      key += `|${property}#${known}`;
    }
  }
  return key;
}

function rowsInView({ top, bottom }: Area, heights: RowHeights): number[] {
  const rows: number[] = [];
  let at = top;
  for (const [first, last, heightPx] of heights) {
    if (heightPx !== 0 || last < at) continue;
    for (; at < first && at <= bottom; at++) rows.push(at);
    at = Math.max(at, last + 1);
  }
  for (; at <= bottom; at++) rows.push(at);
  return rows;
}

function textAt(
  sheet: Replica['sheet'],
  { column, slot }: { column: number; slot: number },
  look: ResolvedLook,
): string {
  if (look.properties.get('hideValue') === true) return '';
  const pattern = lookValue(look.properties, 'number');
  const shown = pattern === undefined ? undefined : shownBy(pattern, sheet.column(column).valueAt(slot));
  return shown ?? shownAt(sheet, column, slot);
}

const clip = (area: Area, rows: number, columns: number): Area => ({
  left: Math.max(0, area.left),
  top: Math.max(0, area.top),
  right: Math.min(area.right, columns - 1),
  bottom: Math.min(area.bottom, rows - 1),
});
