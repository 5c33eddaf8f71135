import { itemAt } from '../../values/item-at';
import {
  Area,
  AreaList,
  FormulaError,
  toLogical,
  toNumber,
  toSerial,
  toText,
  type Matrix,
  type Operand,
  type Scalar,
} from '../values/formula-value';
import { spendText, type EvalCursor } from '../values/place';
import { forEachValue, toMatrix, toScalar } from '../values/read-cells';

/** How a parameter wants its argument: one value, an array, cells, or not evaluated until it is asked for. */
export type Taking = 'value' | 'array' | 'cells' | 'later';

/** One parameter: its name, as hints show it, and how an argument becomes what the function works with. */
export interface Parameter<T> {
  readonly name: string;
  readonly takes: Taking;
  /** An error ends the call with itself. */
  read(operand: Operand | Thunk, place: EvalCursor): T | FormulaError;
  /** The default of an optional argument; without it the argument is required. */
  readonly absent?: { readonly value: T };
  /** True where a range is taken as a whole, and never by the row or column of the formula. */
  readonly takesWhole?: boolean;
  /** True for the last one, where it stands for any number of arguments and gives them as a list. */
  readonly repeats?: boolean;
}

export type Thunk = () => Operand;
type Values<P extends readonly Parameter<unknown>[]> = { [K in keyof P]: P[K] extends Parameter<infer T> ? T : never };

/** A function of the formula language. The hints of an editor come from here too. */
export interface FunctionSpec {
  readonly name: string;
  /** Its result, in a few words. */
  readonly says: string;
  readonly parameters: readonly Parameter<unknown>[];
  run(args: readonly unknown[], place: EvalCursor): Operand;
  /**
   * Set for volatile functions: `clock` where the result depends on the time, `cells` where it reads cells that its
   * text does not name.
   */
  readonly volatile?: 'clock' | 'cells';
}

/** Makes an entry of the table, with the types of the arguments taken from the parameters. */
export function define<const P extends readonly Parameter<unknown>[]>(
  { name, says }: Pick<FunctionSpec, 'name' | 'says'>,
  parameters: P,
  run: (args: Values<P>, place: EvalCursor) => Operand,
): FunctionSpec {
  return { name, says, parameters, run: run as FunctionSpec['run'] };
}

const valueParameter = <T>(name: string, convert: (value: Scalar) => T | FormulaError): Parameter<T> => ({
  name,
  takes: 'value',
  read(operand, place) {
    const value = toScalar(operand as Operand, place);
    spendText(place, value);
    return convert(value);
  },
});

export const number = (name: string) => valueParameter(name, toNumber);
export const text = (name: string) => valueParameter(name, toText);
export const logical = (name: string) => valueParameter(name, toLogical);
/** Days on either side of 1899-12-30 that a date can be: to the year 9999, and as far back. */
export const FARTHEST_DAY = 2_958_466;

/** A date, as days since 1899-12-30. */
export const date = (name: string) =>
  valueParameter(name, (value) => {
    const serial = toSerial(value);
    return typeof serial === 'number' && Math.abs(serial) > FARTHEST_DAY ? FormulaError.number : serial;
  });
/** Any value but an error. */
export const scalar = (name: string) => valueParameter<Scalar>(name, (value) => value);
/** A number without its fraction. */
export const integer = (name: string) =>
  valueParameter(name, (value) => {
    const read = toNumber(value);
    return typeof read === 'number' ? Math.trunc(read) : read;
  });

export const later = (name: string): Parameter<Thunk> => ({
  name,
  takes: 'later',
  read: (operand) => operand as Thunk,
});

/** Cells, not their values. */
export const area = (name: string): Parameter<Area> => ({
  name,
  takes: 'cells',
  read(operand) {
    if (operand instanceof Area) return operand;
    if (operand instanceof AreaList && operand.areas.length === 1) return itemAt(operand.areas, 0);
    return operand instanceof FormulaError ? operand : FormulaError.value;
  },
});

/** Cells or values, as they come. An error is passed on like any value. */
export const anything = (name: string): Parameter<{ readonly operand: Operand }> => ({
  name,
  takes: 'cells',
  read: (operand) => ({ operand: operand as Operand }),
});

/** Values in rows and columns; expressions over ranges give arrays here. */
export const matrix = (name: string): Parameter<Matrix> => ({
  name,
  takes: 'array',
  takesWhole: true,
  read: (operand, place) => (operand instanceof FormulaError ? operand : toMatrix(operand as Operand, place)),
});

/**
 * The numbers of one argument: of cells and arrays the numbers and dates alone; a value given directly is converted.
 * An error is the result.
 */
export const numbers = (name: string): Parameter<readonly number[]> => ({
  name,
  takes: 'cells',
  takesWhole: true,
  read(operand, place) {
    const direct = !(typeof operand === 'object' && operand !== null && !('serial' in operand));
    const found: number[] = [];
    const error = forEachValue(operand as Operand, place, (value) => {
      if (value instanceof FormulaError) return value;
      if (typeof value === 'number') found.push(value);
      else if (direct) {
        const converted = toNumber(value);
        if (typeof converted !== 'number') return converted;
        found.push(converted);
      } else if (value !== null && typeof value === 'object') found.push(value.serial);
      return undefined;
    });
    return error ?? found;
  },
});

/** The same parameter, which may be left out. */
export const optional = <T>(parameter: Parameter<T>, value: T): Parameter<T> => ({ ...parameter, absent: { value } });

/** Any number of arguments of this kind, at least one. */
export const several = <T>(parameter: Parameter<T>): Parameter<readonly T[]> =>
  ({ ...parameter, repeats: true }) as unknown as Parameter<readonly T[]>;

/** The numbers of all arguments in one list. */
export const allNumbers = (name = 'numbers') => several(numbers(name));

/** The same function, marked as volatile. */
export const volatileOn = (on: 'clock' | 'cells', spec: FunctionSpec): FunctionSpec => ({ ...spec, volatile: on });
