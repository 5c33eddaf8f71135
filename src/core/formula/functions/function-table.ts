import { DATABASE } from './database';
import { DATES } from './dates';
import type { FunctionSpec } from './function-spec';
import { LOGIC } from './logic';
import { LOOKUP } from './lookup';
import { MATHEMATICS } from './mathematics';
import { MONEY } from './money';
import { STATISTICS } from './statistics';
import { TEXTS } from './texts';

/** The families of functions, each with the part of the standard that defines it. */
export const FAMILIES = {
  mathematics: MATHEMATICS,
  statistics: STATISTICS,
  logic: LOGIC,
  texts: TEXTS,
  lookup: LOOKUP,
  dates: DATES,
  money: MONEY,
  database: DATABASE,
} as const satisfies Record<string, readonly FunctionSpec[]>;

/** Every function by its name. */
export const FUNCTIONS: ReadonlyMap<string, FunctionSpec> = new Map(
  Object.values(FAMILIES).flatMap((family) => family.map((spec) => [spec.name, spec])),
);

/** How many arguments a function takes; no greatest number where the last may be repeated. */
export function arityOf({ parameters }: FunctionSpec): { readonly least: number; readonly most: number } {
  return {
    least: parameters.filter((parameter) => !parameter.absent).length,
    most: parameters.at(-1)?.repeats ? Infinity : parameters.length,
  };
}

/** True where a function takes this number of arguments. */
export function takes(spec: FunctionSpec, count: number): boolean {
  const { least, most } = arityOf(spec);
  return count >= least && count <= most;
}

/** A function with the names of its arguments: `ROUND(number; [digits])`. */
export function signatureOf({ name, parameters }: FunctionSpec): string {
  return `${name}(${parameters.map((parameter) => (parameter.absent ? `[${parameter.name}]` : parameter.repeats ? `${parameter.name}...` : parameter.name)).join('; ')})`;
}
