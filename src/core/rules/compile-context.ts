import { cellAddress, parseAddress } from '../sheet/address';
import { readDate } from '../values/read-date';
import { foldText } from '../values/fold-text';
import { TAG, type CellValue } from '../values/cell-value';
import { shownText } from '../values/shown-text';
import { roundAsShown } from '../values/number-format';
import type { Sheet } from '../sheet/sheet';
import type { FieldId } from '../sheet/ids';
import type { Inputs } from './kinds/kind';
import type { Operand, Problem } from './rule';
import type { ReadColumn } from './reach';

/** An operand made ready: what it is worth beside a given row. */
export interface OperandReader {
  /** The value, the same in every row unless `sameRow` is set. */
  valueAt(slot: number): CellValue;
  shownAt(slot: number): string;
  readonly constant: boolean;
}

/** What a condition may ask of the sheet while it is compiled and run. */
export interface CompileContext {
  readonly sheet: Sheet;
  /** The cells that the rule reads. */
  readonly cells: readonly ReadColumn[];
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

/** How two values of one type compare: negative, 0, positive; NaN where the types differ or there is nothing to compare. */
export function compareValues(value: CellValue, operand: CellValue): number {
  switch (value.kind) {
    case 'number':
      return operand.kind === 'number' ? value.number - operand.number : NaN;
    case 'date': {
      const serial = operand.kind === 'date' ? operand.serial : operand.kind === 'text' ? readDate(operand.text.trim()) : undefined;
      return serial === undefined ? NaN : value.serial - serial;
    }
    case 'text':
      return operand.kind === 'text' ? compareFolded(foldText(value.text), foldText(operand.text)) : NaN;
    case 'logical':
      return operand.kind === 'logical' ? Number(value.logical) - Number(operand.logical) : NaN;
    case 'blank':
    case 'error':
      return NaN;
  }
}

/** Order by code points: UTF-16 code units put the characters beyond U+FFFF too early. */
function compareFolded(one: string, other: string): number {
  if (one === other) return 0;
  const [a, b] = [Array.from(one), Array.from(other)];
  const differs = a.findIndex((point, at) => point !== b[at]);
  return differs < 0 ? -1 : differs >= b.length ? 1 : a[differs]!.codePointAt(0)! - b[differs]!.codePointAt(0)!;
}

/** The value rounded as its number format shows it. */
export function asShown(value: CellValue, format: string | null): CellValue {
  return value.kind === 'number' ? { kind: 'number', number: roundAsShown(value.number, format) } : value;
}

/** Absolute value of a number; other values as they are. */
export const magnitudeOf = (value: CellValue): CellValue => (value.kind === 'number' ? { kind: 'number', number: Math.abs(value.number) } : value);

/** The number format that a cell is shown with: the field's, else the one its typing implies. */
export function formatAt(sheet: Sheet, column: number, slot: number): string | null {
  return sheet.fields[column]!.format ?? sheet.columns[column]!.entryAt(slot).format;
}

/** The text that a cell shows. */
export function shownAt(sheet: Sheet, column: number, slot: number): string {
  const format = sheet.fields[column]!.format;
  const entry = sheet.columns[column]!.entryAt(slot);
  return format !== null && sheet.columns[column]!.tags[slot] === TAG.number ? shownText(entry.value, format) : entry.shown;
}
