import type { ArchivedChange } from '../core/exchange/archive/archive-lines';
import type { Operation, StoredRow } from '../core/sheet/change';
import type { StoredRule } from '../core/rules/shape/stored-rule';
import type { NewSheet } from '../server/sheets/create-sheet';

/** A cell that held something else before. */
interface Correction {
  readonly row: string;
  readonly field: string;
  readonly was: string;
  readonly by: string;
  readonly daysAgo: number;
}

interface Past {
  /** Records that were not there from the start, by whom they came, and how many days ago each did. */
  readonly arrivals?: { readonly by: string; readonly daysAgo: (row: StoredRow) => number | null };
  readonly corrections?: readonly Correction[];
  /** Rules that said something else before. */
  readonly rules?: readonly {
    readonly id: string;
    readonly was: StoredRule['rule']['when'];
    readonly by: string;
    readonly daysAgo: number;
  }[];
}

const DAY_MS = 86_400_000;
/** How long ago the sheets were made. */
const MADE_DAYS_AGO = 35;

/** A step of the past: what was done, and what takes it back. */
type Step = Pick<ArchivedChange, 'author' | 'at'> & {
  readonly operations: readonly Operation[];
  readonly inverse: readonly Operation[];
};

/** A sheet with the changes that made it what it is, back to when it was made. */
export function withPast(
  contents: NewSheet,
  nowMs: number,
  { arrivals, corrections = [], rules = [] }: Past = {},
): NewSheet {
  const at = (daysAgo: number): number => nowMs - daysAgo * DAY_MS;
  const steps: Step[] = [
    ...(arrivals ? arrivalSteps(contents, { ...arrivals, at, corrections }) : []),
    ...corrections.map(({ row, field, was, by, daysAgo }): Step => {
      const now = contents.rows.find(({ id }) => id === row)?.cells[field] ?? '';
      const entered = (input: string): Operation => ({ kind: 'set-cells', cells: [{ row, field, input }] });
      return { author: by, at: at(daysAgo), operations: [entered(now)], inverse: [entered(was)] };
    }),
    ...rules.flatMap(({ id, was, by, daysAgo }): Step[] => {
      const stored = contents.rules.find((rule) => rule.id === id);
      if (!stored) return [];
      const put = (rule: StoredRule): Operation => ({ kind: 'put-rules', rules: [rule] });
      const before = { ...stored, rule: { ...stored.rule, when: was } };
      return [{ author: by, at: at(daysAgo), operations: [put(stored)], inverse: [put(before)] }];
    }),
  ];
  const changes = steps
    .toSorted((one, other) => one.at - other.at)
    .map((step, place): ArchivedChange => ({ id: `past-${place + 1}`, ...step }));
  return { ...contents, createdAt: at(MADE_DAYS_AGO), changes };
}

/** Records that came on one day came together; what was corrected later came as it was then. */
function arrivalSteps(
  { rows }: NewSheet,
  {
    by,
    daysAgo,
    at,
    corrections,
  }: NonNullable<Past['arrivals']> & {
    readonly at: (daysAgo: number) => number;
    readonly corrections: readonly Correction[];
  },
): Step[] {
  const byDay = new Map<number, StoredRow[]>();
  for (const row of rows) {
    const ago = daysAgo(row);
    if (ago !== null) byDay.set(ago, [...(byDay.get(ago) ?? []), row]);
  }
  return [...byDay].map(([ago, arrived]): Step => {
    const asTheyCame = arrived.map((row) => {
      const was = corrections.filter((each) => each.row === row.id).map(({ field, was: input }) => [field, input]);
      return { ...row, cells: { ...row.cells, ...Object.fromEntries(was) } };
    });
    return {
      author: by,
      at: at(ago),
      operations: [{ kind: 'insert-rows', rows: asTheyCame }],
      inverse: [{ kind: 'remove-rows', rows: arrived.map(({ id }) => id) }],
    };
  });
}
