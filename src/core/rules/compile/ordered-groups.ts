import { RankedNumbers } from '../../stats/ranked-numbers';
import type { CellBefore } from '../../sheet/effect';
import type { CompileContext } from './compile-context';
import { numbersOnly } from './numbers-only';
import type { OutcomeColumn } from './outcome-column';
import { Grouping, type Per } from './grouping';
import { isProblem, type Problem } from '../terms';

/** The numbers of one group in order, and what a kind has worked out from them. */
export interface OrderedGroup<D> {
  numbers: RankedNumbers;
  derived: D;
}

/** Numbers in order for each group of the cells read, with what a kind derives from them: kept up to date by edits. */
export class OrderedGroups<D> {
  private constructor(
    private readonly context: CompileContext,
    readonly grouping: Grouping<OrderedGroup<D>>,
    private readonly derive: (numbers: RankedNumbers) => D,
  ) {
    for (const [group, numbers] of grouping.gather()) group.numbers = new RankedNumbers(numbers);
    for (const group of grouping.groups.values()) group.derived = derive(group.numbers);
  }

  static over<D>(
    per: Per | undefined,
    context: CompileContext,
    derive: (numbers: RankedNumbers) => D,
  ): OrderedGroups<D> | Problem {
    const grouping = Grouping.over(per, context, () => {
      const numbers = new RankedNumbers();
      return { numbers, derived: derive(numbers) };
    });
    return isProblem(grouping) ? grouping : new OrderedGroups(context, grouping, derive);
  }

  of(column: number, slot: number): OrderedGroup<D> | undefined {
    return this.grouping.of(column, slot);
  }

  /** The group of a cell that has an outcome. Throws a RangeError where it belongs to none. */
  groupAt(column: number, slot: number): OrderedGroup<D> {
    const group = this.of(column, slot);
    if (!group) throw new RangeError(`The cell at column ${column} and slot ${slot} belongs to no group.`);
    return group;
  }

  /**
   * The first problem in the values derived for the groups; where there are no numbers at all, in the values derived of
   * none.
   */
  findProblem(check: (derived: D) => Problem | undefined): Problem | undefined {
    const groups = [...this.grouping.groups.values()];
    if (groups.length === 0) return check(this.derive(new RankedNumbers()));
    for (const group of groups) {
      const problem = check(group.derived);
      if (problem) return problem;
    }
    return undefined;
  }

  /** Outcome 0 for a number that belongs to a group, -1 for everything else: for kinds that show every number. */
  outcomeAt(column: number, slot: number): number {
    const number = this.context.sheet.column(column).numberAt(slot);
    return number === number && this.of(column, slot) ? 0 : -1;
  }

  /** The same for a whole column. */
  run(column: number, slotCount: number, into: OutcomeColumn): void {
    if (this.grouping.isByColumn) numbersOnly(this.context.sheet.column(column), slotCount, into);
    else for (let slot = 0; slot < slotCount; slot++) into.put(slot, this.outcomeAt(column, slot));
  }

  /**
   * Follows an edit; gives the values derived of the cell's group before and after, or undefined where its numbers
   * stayed the same.
   */
  edited(column: number, slot: number, before: CellBefore): { readonly before: D; readonly now: D } | undefined {
    const number = this.context.sheet.column(column).numberAt(slot);
    if (Object.is(number, before.number)) return undefined;
    const group = this.grouping.claim(column, slot);
    if (!group) return undefined;
    if (before.number === before.number) group.numbers.remove(before.number);
    if (number === number) group.numbers.add(number);
    const was = group.derived;
    group.derived = this.derive(group.numbers);
    return { before: was, now: group.derived };
  }
}
