import type { ExamplesGiven } from './proposal';

/** Examples that are left out in turn: those that were pointed at last. */
const MAX_LEFT_OUT = 12;

/** The examples without each of them in turn, so that a rule can be found that one does not fit. */
export function withoutEach(given: ExamplesGiven): ExamplesGiven[] {
  const { wanted, unwanted } = given;
  const fewer = <T>(list: readonly T[]): T[][] =>
    list
      .map((_, left) => list.filter((__, at) => at !== left))
      .filter(({ length }) => length > 0 || list === unwanted)
      .slice(-MAX_LEFT_OUT);
  return [
    ...wanted.flatMap((group) =>
      fewer(group.cells).map((cells) => ({
        ...given,
        wanted: wanted.map((each) => (each === group ? { ...group, cells } : each)),
      })),
    ),
    ...fewer(unwanted).map((cells) => ({ ...given, unwanted: cells })),
  ].slice(-2 * MAX_LEFT_OUT);
}
