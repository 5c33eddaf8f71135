import { isKept, type CellRef, type KeptRef } from '../../formula/syntax/formula-tree';
import { cellValueOf, valueAt } from '../../formula/run/make-formula';
import { makeRuleFormula } from './formula-reader';
import { cellAddress, GONE, parseAddress } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import type { CellValue } from '../../values/cell-value';
import { shownAt, toldNumber } from '../../sheet/shown-cell';
import { shownText } from '../../values/shown-text';
import type { CompileContext } from './compile-context';
import { missingField, type Inputs, type Operand, type Problem } from '../terms';

/** A compiled operand: its value beside a given row. */
export interface OperandReader {
  /** The value beside a cell that is read; without a column, beside the first one read. */
  valueAt(slot: number, column?: number): CellValue;
  shownAt(slot: number, column?: number): string;
  /** Why there is nothing to compare with beside a cell, in words for the trace; undefined where there is. */
  whyNothing?(slot: number): string | undefined;
  /** True where it is the same beside every cell. */
  readonly constant: boolean;
}

/** Makes operands ready and gathers what they depend on; a field that is missing is a problem. */
export function readOperands(
  operands: readonly Operand[],
  context: CompileContext,
): { readers: OperandReader[]; inputs: Inputs } | Problem {
  const { sheet } = context;
  const sameRow: number[] = [];
  const cells: { column: number; slot: number }[] = [];
  const formulas: Inputs[] = [];
  const readers: OperandReader[] = [];
  for (const operand of operands) {
    if (typeof operand !== 'object') {
      readers.push({
        ...constantReader(literalValue(operand), String(operand)),
        ...(typeof operand === 'number'
          ? { shownAt: (_, column) => (column === undefined ? String(operand) : toldNumber(sheet, column, operand)) }
          : {}),
      });
    } else if ('cell' in operand) {
      const at = parseAddress(operand.cell);
      const slot = at && sheet.order[at.position];
      if (!at || slot === undefined || !sheet.columns[at.column]) {
        readers.push(
          constantReader(
            { kind: 'blank' },
            operand.cell === GONE ? 'a cell that was deleted' : `${operand.cell} (beyond the sheet)`,
          ),
        );
        continue;
      }
      cells.push({ column: at.column, slot });
      readers.push(cellReader(sheet, at.column, slot));
    } else if ('formula' in operand) {
      const { reader, inputs } = formulaReader(operand.formula, context);
      formulas.push(inputs);
      readers.push(reader);
    } else {
      const column = sheet.findColumn(operand.field);
      if (column === undefined) return missingField(operand.field);
      sameRow.push(column);
      readers.push(fieldReader(sheet, column, operand));
    }
  }
  return { readers, inputs: joinInputs([{ sameRow, wholeColumns: [], cells }, ...formulas]) };
}

/** Everything that several parts of a condition depend on. */
export function joinInputs(inputs: readonly Inputs[]): Inputs {
  return {
    sameRow: inputs.flatMap((input) => input.sameRow),
    wholeColumns: inputs.flatMap((input) => input.wholeColumns),
    cells: inputs.flatMap((input) => input.cells),
    isTimeDependent: inputs.some((input) => input.isTimeDependent),
  };
}

/**
 * A formula that reads nothing of the row it is judged in, and nothing at a distance from it, is worth the same
 * everywhere.
 */
function formulaReader(text: string, context: CompileContext): { reader: OperandReader; inputs: Inputs } {
  const { formula, placeOf, inputs } = makeRuleFormula(text, context);
  const constant = formula.references.every(({ ends }) => ends.every(isAbsolute));
  const valueOf = (slot: number, column: number): CellValue => cellValueOf(valueAt(formula, placeOf(column, slot)));
  const column = context.cells[0]?.column ?? 0;
  let known: CellValue | undefined;
  const reader: OperandReader = {
    valueAt: constant
      ? () => (known ??= valueOf(context.sheet.order[0] ?? -1, column))
      : (slot, at = column) => valueOf(slot, at),
    shownAt: (slot, at = column) =>
      `${shownText(constant ? reader.valueAt(slot) : valueOf(slot, at), null) || 'blank'} by ${text}`,
    constant,
  };
  return { reader, inputs };
}

const isAbsolute = (end: CellRef | KeptRef): boolean =>
  isKept(end) ? end.row !== 'same' : (end.column?.absolute ?? true) && (end.row?.absolute ?? true);

const literalValue = (operand: number | string | boolean): CellValue =>
  typeof operand === 'number'
    ? { kind: 'number', number: operand }
    : typeof operand === 'boolean'
      ? { kind: 'logical', logical: operand }
      : { kind: 'text', text: operand };

const constantReader = (value: CellValue, shown: string): OperandReader => ({
  valueAt: () => value,
  shownAt: () => shown,
  constant: true,
});

function cellReader(sheet: Sheet, column: number, slot: number): OperandReader {
  return {
    valueAt: () => sheet.column(column).valueAt(slot),
    shownAt: () => `${shownAt(sheet, column, slot) || 'blank'} in ${cellAddress(column, sheet.positionOf(slot))}`,
    constant: true,
  };
}

/**
 * A field of the same row. No text is a multiple of a text: where it is to be scaled or shifted, only a number or a
 * date is worth anything.
 */
function fieldReader(sheet: Sheet, column: number, scaling: { times?: number; plus?: number }): OperandReader {
  const { times = 1, plus = 0 } = scaling;
  const isScaled = scaling.times !== undefined || scaling.plus !== undefined;
  const held = (slot: number): CellValue => sheet.column(column).valueAt(slot);
  const valueAt = (slot: number): CellValue => {
    const value = held(slot);
    if (value.kind === 'number') return { kind: 'number', number: value.number * times + plus };
    if (value.kind === 'date') return { kind: 'date', serial: value.serial * times + plus };
    return isScaled ? { kind: 'blank' } : value;
  };
  return {
    valueAt,
    shownAt: (slot) =>
      shownText(isScaled && valueAt(slot).kind === 'blank' ? held(slot) : valueAt(slot), null) || 'blank',
    whyNothing: (slot) =>
      isScaled && (held(slot).kind === 'text' || held(slot).kind === 'logical')
        ? 'what is no number has no multiple: not comparable'
        : undefined,
    constant: false,
  };
}
