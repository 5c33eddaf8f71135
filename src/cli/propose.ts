import { FIRST_FAMILY } from '../core/looks/first-family';
import type { Look } from '../core/looks/look';
import { Evaluation } from '../core/rules/evaluate/evaluation';
import { induceRules, type InducedRules } from '../core/rules/induce/induce-rules';
import type { ExamplesGiven } from '../core/rules/induce/proposal';
import type { ExampleCell } from '../core/rules/propose/evidence';
import { mapRuleReferences } from '../core/rules/shape/map-rule-references';
import { fieldByLabel } from '../core/rules/shape/read-rule-set';
import { cellAddress, columnLetters, isWholeRows, parseRanges, type CellRange } from '../core/sheet/address';
import type { Sheet } from '../core/sheet/sheet';
import { shownAt } from '../core/sheet/shown-cell';
import { serialInZone } from '../core/values/dates/serial-in-zone';
import type { Answer } from './answer';
import { BadInput } from './bad-input';
import type { FileOptions } from './read-contents';
import { placeOf } from './read-bytes';
import { readSheetFile } from './read-sheet-file';

interface ProposeOptions extends FileOptions {
  readonly paint?: readonly string[];
  readonly not?: readonly string[];
  readonly field?: string;
}

/** Examples that are taken at most. */
const MAX_EXAMPLES = 1000;

/**
 * `propose DATA --paint CELLS [--not CELLS] [--field LABEL]`: the rules that fit, as JSON text, best first, and the cell
 * whose answer would tell most.
 */
export function proposeCommand([data = '']: readonly (string | undefined)[], options: ProposeOptions): Answer {
  const { paint = [], not = [], field } = options;
  if (paint.length === 0)
    throw new BadInput('command line', 'propose needs --paint with cells that are to be painted, such as B2,B10');
  const { sheet } = readSheetFile(data, options);
  const place = placeOf(data);
  const groups = paint.map((text, at) => {
    const [, name, cells = text] = /^([^=]+)=(.*)$/.exec(text) ?? [];
    return { look: readLook(name, at), ranges: readRanges(cells, '--paint') };
  });
  const others = not.flatMap((text) => readRanges(text, '--not'));
  const all = [...groups.flatMap(({ ranges }) => ranges), ...others];
  const isRecord = all.every(isWholeRows);
  const reads = field === undefined ? undefined : fieldByLabel(sheet)(field);
  if (reads !== undefined && sheet.findColumn(reads) === undefined)
    throw new BadInput(place, `there is no field "${field}"; expected the label of one`);
  const given: ExamplesGiven = {
    wanted: groups.map(({ look, ranges }) => ({ look, cells: cellsIn(ranges, { sheet, isRecord, place }) })),
    unwanted: cellsIn(others, { sheet, isRecord, place }),
    paints: isRecord ? 'record' : 'cell',
    reads,
  };
  const evaluation = new Evaluation(sheet, {}, { now: serialInZone(options.nowMs, options.zone) });
  return { text: JSON.stringify(told(sheet, induceRules(evaluation, given)), null, 2), code: 0 };
}

/** A look by its name, or the one at a place among those that every sheet begins with. */
function readLook(name: string | undefined, at: number): Look {
  const found =
    name === undefined ? FIRST_FAMILY[at % FIRST_FAMILY.length] : FIRST_FAMILY.find(({ id }) => id === name);
  if (found) return found.light;
  const names = FIRST_FAMILY.map(({ id }) => id).join(', ');
  throw new BadInput('command line', `--paint names the look "${name}"; expected one of ${names}`);
}

function readRanges(text: string, option: string): CellRange[] {
  const ranges = parseRanges(text.replaceAll(',', ' '));
  if (!ranges)
    throw new BadInput('command line', `${option} is "${text}"; expected cells or ranges such as B2,B10,C2:C5`);
  return ranges;
}

/** The cells of ranges that are records; of whole rows the first one, which stands for the row. */
function cellsIn(
  ranges: readonly CellRange[],
  { sheet, isRecord, place }: { readonly sheet: Sheet; readonly isRecord: boolean; readonly place: string },
): ExampleCell[] {
  const cells: ExampleCell[] = [];
  for (const { left, right, top, bottom } of ranges) {
    const [lastColumn, lastRow] = [Math.min(right, sheet.fields.length - 1), Math.min(bottom, sheet.rowCount - 1)];
    if (left > lastColumn || top > lastRow)
      throw new BadInput(
        place,
        `there is no cell ${cellAddress(left, top)}; the sheet has ${sheet.fields.length} fields and ${sheet.rowCount} rows`,
      );
    for (let position = top; position <= lastRow; position++) {
      const slot = sheet.slotAt(position);
      if (sheet.roleAt(slot) !== 'record')
        throw new BadInput(place, `row ${position + 1} is the header; expected cells of records`);
      for (let column = left; column <= (isRecord ? left : lastColumn); column++) cells.push({ column, slot });
      if (cells.length > MAX_EXAMPLES)
        throw new BadInput('command line', `${MAX_EXAMPLES} examples are the most; expected fewer cells`);
    }
  }
  return cells;
}

/** Proposals in the words of files: fields by label, cells by address. */
function told(sheet: Sheet, { proposals, ask }: InducedRules): object {
  const addressOf = ({ column, slot }: ExampleCell) => cellAddress(column, sheet.positionOf(slot));
  const cellOf = (cell: ExampleCell) => ({ cell: addressOf(cell), value: shownAt(sheet, cell.column, cell.slot) });
  const labelOf = (id: string): string => {
    const column = sheet.findColumn(id);
    return column === undefined ? id : (sheet.labelOf(column) ?? columnLetters(column));
  };
  return {
    proposals: proposals.map(({ sentence, idea, count, near, misses, isSame }, at) => {
      const rule = { id: `proposal-${at + 1}`, name: sentence, on: true, ...idea };
      return {
        sentence,
        rule: mapRuleReferences(rule, { field: labelOf }),
        paints: count,
        ...(isSame ? { sameAsBefore: true } : {}),
        near: near.map(({ isPainted, ...cell }) => ({ ...cellOf(cell), painted: isPainted })),
        ...(misses.length ? { misses: misses.map(addressOf) } : {}),
      };
    }),
    ask: ask ? { ...cellOf(ask), paintedBy: ask.paintedBy.map((at) => at + 1) } : null,
  };
}
