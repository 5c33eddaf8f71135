import { Area, AreaList, FormulaError, type Operand } from '../values/formula-value';

/** Two areas joined by one of the operators of references. */
export function joined(
  left: Operand,
  right: Operand,
  join: (a: Area, b: Area) => Area | AreaList | FormulaError,
): Operand {
  const [a, b] = [left, right].map((operand) => (operand instanceof AreaList ? operand.areas : operand));
  if (a instanceof FormulaError) return a;
  if (b instanceof FormulaError) return b;
  if (join === united) {
    const areas = [a, b].flatMap((side) => (side instanceof Area ? side : Array.isArray(side) ? (side as Area[]) : []));
    return areas.length > 1 ? new AreaList(areas) : FormulaError.value;
  }
  return a instanceof Area && b instanceof Area && a.sheet === b.sheet ? join(a, b) : FormulaError.value;
}

/** `:` the least area that holds both. */
export const spanned = (a: Area, b: Area): Area =>
  new Area(a.sheet, {
    left: Math.min(a.left, b.left),
    top: Math.min(a.top, b.top),
    right: Math.max(a.right, b.right),
    bottom: Math.max(a.bottom, b.bottom),
  });

/** `~` both, one after the other. */
export const united = (a: Area, b: Area): AreaList => new AreaList([a, b]);

/** `!` what they share. */
export function intersected(a: Area, b: Area): Area | FormulaError {
  const [left, right] = [Math.max(a.left, b.left), Math.min(a.right, b.right)];
  const [top, bottom] = [Math.max(a.top, b.top), Math.min(a.bottom, b.bottom)];
  return left > right || top > bottom ? FormulaError.empty : new Area(a.sheet, { left, top, right, bottom });
}
