import { cellAddress } from '../../core/sheet/address';
import type { CellIds } from '../../core/sheet/ids';
import { shownAt } from '../../core/sheet/shown-cell';
import type { Sheet } from '../../core/sheet/sheet';
import { explainFill } from '../../core/rules/induce/explain-fill';
import { handFills } from '../../core/rules/induce/hand-fills';
import { induceRules, toldProposal, type ToldProposal } from '../../core/rules/induce/induce-rules';
import type { ExampleCell } from '../../core/rules/propose/evidence';
import type { CellTold, FilledCells, PointedExamples, ProposalsTold, ProposalTold } from '../../protocol/by-example';
import type { Replica } from '../replica/replica';

/** Examples of one sort that count; those pointed at last. */
const MAX_EXAMPLES = 200;
/** Examples that a proposal does not fit and that are named. */
const MAX_MISSES = 8;

/** The rules that fit the cells somebody has pointed at. Cells that are no record's, or are gone, are left out. */
export function proposalsOf(
  { sheet, evaluation }: Replica,
  { wanted, unwanted, paints }: PointedExamples,
): ProposalsTold {
  const groups = wanted.map(({ look, cells }) => ({ look, cells: recordCells(sheet, cells) }));
  const others = recordCells(sheet, unwanted);
  const { proposals, ask } = induceRules(evaluation, {
    wanted: groups.filter(({ cells }) => cells.length > 0),
    unwanted: others,
    paints,
  });
  const tell = (cell: ExampleCell) => cellTold(sheet, cell);
  return {
    proposals: proposals.map((each) => proposalTold(sheet, each)),
    ask: ask ? tell(ask) : null,
    wanted: groups.map(({ cells }) => cells.map(tell)),
    unwanted: others.map(tell),
  };
}

/** The fills of records that were made by hand. */
export const fillsOf = ({ sheet }: Replica): FilledCells[] => handFills(sheet).map(({ slots: _, ...fill }) => fill);

/** The rules that explain a fill; none where it is gone, or follows nothing. */
export function explanationsOf({ sheet, evaluation }: Replica, asked: FilledCells): ProposalTold[] {
  const fill = handFills(sheet).find((each) => each.fill === asked.fill && each.fields.join() === asked.fields.join());
  if (!fill) return [];
  return explainFill(evaluation, fill).map((each) => proposalTold(sheet, toldProposal(evaluation, each)));
}

function recordCells(sheet: Sheet, cells: readonly CellIds[]): ExampleCell[] {
  return cells.slice(-MAX_EXAMPLES).flatMap((ids) => {
    const cell = sheet.findCell(ids);
    return cell && sheet.roleAt(cell.slot) === 'record' ? [cell] : [];
  });
}

const cellTold = (sheet: Sheet, { column, slot }: ExampleCell): CellTold => ({
  cell: sheet.cellIds(column, slot),
  address: cellAddress(column, sheet.positionOf(slot)),
  shown: shownAt(sheet, column, slot),
});

const proposalTold = (sheet: Sheet, { near, misses, ...rest }: ToldProposal): ProposalTold => ({
  ...rest,
  near: near.map((each) => ({ ...cellTold(sheet, each), isPainted: each.isPainted })),
  misses: misses.slice(0, MAX_MISSES).map((each) => cellTold(sheet, each)),
});
