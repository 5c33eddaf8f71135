import { cellAddress, parseAddress } from '../sheet/address';
import type { FieldId } from '../sheet/ids';
import type { Sheet } from '../sheet/sheet';
import type { CellValue } from '../values/cell-value';
import { shownText } from '../values/shown-text';
import type { CompileContext } from './compile-context';
import type { Inputs } from './kinds/kind';
import type { Operand, Problem } from './rule';

/** An operand made ready: what it is worth beside a given row. */
export interface OperandReader {
  /** The value, the same in every row unless `sameRow` is set. */
  valueAt(slot: number): CellValue;
  shownAt(slot: number): string;
  readonly constant: boolean;
}

/** Makes operands ready and gathers what they depend on; a field that is missing is a problem. */
export function readOperands(operands: readonly Operand[], { sheet }: CompileContext): { readers: OperandReader[]; inputs: Inputs } | Problem {
  const sameRow: number[] = [];
  const cells: { column: number; slot: number }[] = [];
  const readers: OperandReader[] = [];
  for (const operand of operands) {
    if (typeof operand !== 'object') {
      readers.push(constantReader(literalValue(operand), String(operand)));
    } else if ('cell' in operand) {
      const at = parseAddress(operand.cell);
      const slot = at && sheet.order[at.position];
      if (slot === undefined || !sheet.columns[at!.column]) {
        readers.push(constantReader({ kind: 'blank' }, `${operand.cell} (beyond the sheet)`));
        continue;
      }
      cells.push({ column: at!.column, slot });
      readers.push(cellReader(sheet, at!.column, slot));
    } else {
      const column = sheet.findColumn(operand.field);
      if (column === undefined) return missingField(operand.field);
      sameRow.push(column);
      readers.push(fieldReader(sheet, column, operand));
    }
  }
  return { readers, inputs: { sameRow, wholeColumns: [], cells } };
}

export const missingField = (name: FieldId): Problem => ({ code: 'missing-field', message: `there is no field "${name}" in this sheet` });

const literalValue = (operand: number | string | boolean): CellValue =>
  typeof operand === 'number'
    ? { kind: 'number', number: operand }
    : typeof operand === 'boolean'
      ? { kind: 'logical', logical: operand }
      : { kind: 'text', text: operand };

const constantReader = (value: CellValue, shown: string): OperandReader => ({ valueAt: () => value, shownAt: () => shown, constant: true });

function cellReader(sheet: Sheet, column: number, slot: number): OperandReader {
  const entry = () => sheet.columns[column]!.entryAt(slot);
  return {
    valueAt: () => entry().value,
    shownAt: () => `${entry().shown || 'blank'} in ${cellAddress(column, sheet.positionOf(slot))}`,
    constant: true,
  };
}

function fieldReader(sheet: Sheet, column: number, { times = 1, plus = 0 }: { times?: number; plus?: number }): OperandReader {
  const valueAt = (slot: number): CellValue => {
    const value = sheet.columns[column]!.valueAt(slot);
    if (value.kind === 'number') return { kind: 'number', number: value.number * times + plus };
    if (value.kind === 'date') return { kind: 'date', serial: value.serial * times + plus };
    return value;
  };
  return { valueAt, shownAt: (slot) => shownText(valueAt(slot), null) || 'blank', constant: false };
}
