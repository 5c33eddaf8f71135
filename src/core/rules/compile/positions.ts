import { itemAt } from '../../values/item-at';
import { numberOf } from '../../values/cell-value';
import { lazySchema } from '../../lazy-schema';
import type { FieldId } from '../../sheet/ids';
import type { RankedNumbers } from '../../stats/ranked-numbers';
import { numberText } from '../../values/number-text';
import type { CompileContext } from './compile-context';
import { mapOperand, operandSchema } from './operand-schema';
import { isProblem, type Inputs, type Operand, type Problem, type RuleReferences } from '../terms';
import { joinInputs, readOperands } from './operands';

/** Where on the scale of the numbers read something stands. */
export type Position =
  | 'least'
  | 'greatest'
  | { readonly percent: number }
  | { readonly percentile: number }
  | Exclude<Operand, string | boolean | { readonly field: FieldId }>;

const share = lazySchema<number>((joi) => joi.number().strict().min(0).max(100));

export const positionSchema = lazySchema<Position>(
  (joi) =>
    joi
      .alternatives()
      .try(
        joi.valid('least', 'greatest'),
        joi.object({ percent: share(joi).required() }),
        joi.object({ percentile: share(joi).required() }),
        operandSchema(['number'], 'no-fields')(joi),
      ),
  'a number, "least", "greatest", { "percent": p }, { "percentile": p }, { "cell": "F4" } or { "formula": "=..." }',
);

/** The position with what it names replaced. */
export function mapPosition(position: Position, to: RuleReferences): Position {
  return typeof position === 'object' && ('cell' in position || 'formula' in position)
    ? (mapOperand(position, to) as Position)
    : position;
}

/** Compiled positions: where they are among the numbers of a group. */
export interface Positions {
  /** Their values; NaN where that depends on numbers and there are none. */
  among(numbers: RankedNumbers): number[];
  readonly inputs: Inputs;
  /** True where they do not depend on the numbers. */
  readonly isFixed: boolean;
}

/** Makes positions ready. Operands among them are the same for every cell. */
export function readPositions(positions: readonly Position[], context: CompileContext): Positions | Problem {
  const read: ((numbers: RankedNumbers) => number)[] = [];
  const inputs: Inputs[] = [];
  for (const [at, position] of positions.entries()) {
    const found = readPosition(position, { at, context });
    if (isProblem(found)) return found;
    read.push(found.among);
    inputs.push(...found.inputs);
  }
  const isFixed = positions.every(
    (position) =>
      typeof position === 'number' ||
      (typeof position === 'object' && !('percent' in position) && !('percentile' in position)),
  );
  return { among: (numbers) => read.map((one) => one(numbers)), inputs: joinInputs(inputs), isFixed };
}

function readPosition(
  position: Position,
  { at, context }: { readonly at: number; readonly context: CompileContext },
): { among: (numbers: RankedNumbers) => number; inputs: Inputs[] } | Problem {
  if (position === 'least') return { among: (numbers) => numbers.least, inputs: [] };
  if (position === 'greatest') return { among: (numbers) => numbers.greatest, inputs: [] };
  if (typeof position === 'object' && 'percent' in position)
    return { among: ({ least, greatest }) => least + (position.percent / 100) * (greatest - least), inputs: [] };
  if (typeof position === 'object' && 'percentile' in position)
    return { among: (numbers) => numbers.quantile(position.percentile / 100), inputs: [] };
  const operands = readOperands([position], context);
  if (isProblem(operands)) return operands;
  const value = itemAt(operands.readers, 0).valueAt(context.sheet.order[0] ?? -1);
  const number = numberOf(value);
  if (Number.isNaN(number))
    return { code: 'missing-position', message: `position ${at + 1} cannot be found: there is no number for it` };
  return { among: () => number, inputs: [operands.inputs] };
}

/**
 * Why positions cannot be used: one is lower than the one before. Of those that depend on numbers nothing is known
 * while there are none.
 */
export function positionProblem(at: readonly number[]): Problem | undefined {
  const falling = at.findIndex((value, index) => index > 0 && value < itemAt(at, index - 1));
  if (falling < 0) return undefined;
  const message = `positions must not fall, and position ${falling + 1} (${numberText(itemAt(at, falling))}) is lower than the one before it (${numberText(itemAt(at, falling - 1))})`;
  return { code: 'falling-positions', message };
}
