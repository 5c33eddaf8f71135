import { cellValueOf } from '../../formula/run/make-formula';
import { shiftFormula } from '../../formula/syntax/rewrite-references';
import { cellAddress, parseAddress } from '../../sheet/address';
import { shownText } from '../../values/shown-text';
import type { Evaluation } from '../evaluate/evaluation';
import { topLeft } from '../compile/formula-reader';

/** How a rule's formula reads at a cell, and what it gives there. */
export interface Reading {
  readonly address: string;
  readonly formula: string;
  readonly gives: string;
}

/**
 * How the formula of a rule reads at the first two and the last of the cells it reads, and at another cell. None where
 * there is no such rule, or it is no formula or cannot work.
 */
export function formulaReadings(
  { sheet, activeRules }: Evaluation,
  id: string,
  at: { column: number; position: number },
): Reading[] {
  const found = activeRules.find(({ rule }) => rule.id === id);
  if (!found || found.problem || found.rule.when.kind !== 'formula') return [];
  const { when } = found.rule;
  const cells = found.read;
  const written = (when.at === undefined ? undefined : parseAddress(when.at)) ?? topLeft({ cells, sheet });
  const [first] = cells;
  const positions = first ? [...sheet.order.keys()].filter((position) => first.slots.has(sheet.slotAt(position))) : [];
  const wanted = new Map<string, { column: number; position: number }>();
  const add = (column: number, position: number) => wanted.set(cellAddress(column, position), { column, position });
  for (const position of [positions[0], positions[1], positions.at(-1)])
    if (first && position !== undefined) add(first.column, position);
  if (cells.some(({ column, slots }) => column === at.column && slots.has(sheet.order[at.position] ?? -1)))
    add(at.column, at.position);
  return [...wanted].map(([address, { column, position }]) => {
    const value = found.formulaValue(column, sheet.slotAt(position));
    return {
      address,
      formula: shiftFormula(when.formula, column - written.column, position - written.position),
      gives: shownText(cellValueOf(value ?? null), null) || 'blank',
    };
  });
}
