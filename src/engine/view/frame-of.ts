import { rulesOf } from '../../core/rules/shape/stored-rule';
import { lookParts } from '../../core/sheet/sheet-looks';
import { fillingOf } from '../../core/sharing/filling';
import { keyFields } from '../../core/sharing/key-fields';
import { frozenColumns } from '../../core/sheet/layout/frozen-columns';
import { parentRows } from '../../core/sheet/layout/levels';
import { mergeAreas } from '../../core/sheet/layout/merge-areas';
import type { Sheet } from '../../core/sheet/sheet';
import type { SheetFrame } from '../../protocol/sheet-view';
import { shownFields } from './legend-of';
import type { Replica } from '../replica/replica';
import { rowHeights, type OutOfView } from './row-heights';

/** Rows up to the header, where that is near the top. */
export const frozenRows = (sheet: Sheet): number =>
  sheet.order.slice(0, 20).findLastIndex((slot) => sheet.roleAt(slot) === 'header') + 1;

/** The layout of a sheet for the page, besides the visible window. */
export function frameOf(replica: Replica, name: string, outOfView: OutOfView): SheetFrame {
  const { sheet } = replica;
  return {
    name,
    linked: replica.whole?.head ?? null,
    isEmpty: sheet.isEmpty(),
    fields: shownFields(sheet),
    rowCount: sheet.rowCount,
    frozenRows: frozenRows(sheet),
    frozenColumns: frozenColumns(sheet),
    isBanded: sheet.parts.get('bands') !== undefined,
    heights: rowHeights(replica, outOfView),
    merges: mergeAreas(sheet).map(({ area }) => area),
    names: sheet.partsOf('name'),
    snapshots: sheet.partsOf('snapshot').map(({ name }) => name),
    looks: lookParts(sheet.parts.values()),
    ruleSets: sheet.partsOf('rule-set'),
    filter: outOfView.filter,
    filling: fillingOf(sheet.parts.values()),
    keyFields: [
      ...keyFields(
        rulesOf(sheet).map(({ rule }) => rule),
        sheet.fields,
      ),
    ],
    folds: parentRows(sheet).map((position) => ({
      position,
      folded: outOfView.folded.has(sheet.rowId(sheet.slotAt(position))),
    })),
  };
}
