import { lookProperties, type Look, type LookProperties, type LookProperty, lookValue } from '../../looks/look';
import { readableText } from '../../looks/readable-text';
import type { Sheet } from '../../sheet/sheet';
import { kindOf } from '../kinds/registry';
import type { RunningRule } from './running-rule';

/** More than the outcomes of one rule can be: one a row at most. */
const MAX_OUTCOMES = 2 ** 24;

/** The final look of a cell: each property, and which rule (by place in the list) gave it. */
export interface ResolvedLook {
  readonly properties: LookProperties;
  readonly from: ReadonlyMap<LookProperty, number>;
  /** The rules that match the cell, count for it and have a look to give, in order. */
  readonly rules: readonly number[];
}

/**
 * One step on the way from no look to a final one. Cells with the same matches share the same node, hence the same
 * look.
 */
interface Node extends ResolvedLook {
  readonly next: Map<number, Node>;
}

interface PaintingRule {
  readonly index: number;
  readonly running: RunningRule;
  readonly choosesText: boolean;
  /** Columns whose outcome decides, from the left. */
  readonly sources: readonly number[];
}

/**
 * Which rule wins, property by property: the first matching rule that sets a property gives it; a rule that settles and
 * matches ends the list for the cell. Looks are merged once for each distinct run of matches, not once a cell.
 */
export class Resolver {
  readonly none: ResolvedLook;
  private readonly root: Node = { properties: new Map(), from: new Map(), rules: [], next: new Map() };
  private readonly painters: readonly (readonly PaintingRule[])[];

  constructor(
    running: readonly RunningRule[],
    private readonly saved: Readonly<Record<string, Look>>,
    sheet: Sheet,
  ) {
    this.none = this.root;
    this.painters = sheet.fields.map((_, column) => running.flatMap((rule, index) => painterOf(rule, index, column)));
  }

  /** The look of a cell. The same object stands for the same look while the rules stay the same. */
  resolve(column: number, slot: number): ResolvedLook {
    let node = this.root;
    let chooser: PaintingRule | undefined;
    for (const painter of this.painters[column] ?? []) {
      const deciding = decidingOutcome(painter.running, painter.sources, slot);
      if (deciding.outcome < 0) continue;
      if (painter.choosesText) chooser ??= painter;
      node = painter.running.variesByCell
        ? this.merged(node, painter, painter.running.lookOf(deciding.column, slot))
        : this.step(node, painter, deciding.outcome);
      if (painter.running.rule.settles) break;
    }
    return chooser ? withReadableText(node, chooser.index) : node;
  }

  private step(node: Node, painter: PaintingRule, outcome: number): Node {
    const key = painter.index * MAX_OUTCOMES + outcome;
    let next = node.next.get(key);
    if (!next) node.next.set(key, (next = this.merged(node, painter, painter.running.look(outcome))));
    return next;
  }

  private merged(node: Node, { index }: PaintingRule, look: Look | null): Node {
    const properties = new Map(node.properties);
    const from = new Map(node.from);
    for (const [name, value] of look ? lookProperties(look, this.saved) : []) {
      if (properties.has(name)) continue;
      properties.set(name, value);
      from.set(name, index);
    }
    return { properties, from, rules: look ? [...node.rules, index] : node.rules, next: new Map() };
  }
}

/**
 * Sets a text colour that can be read on the fill where no rule set one; its source is the rule that chose the fill.
 */
function withReadableText(look: ResolvedLook, index: number): ResolvedLook {
  const fill = lookValue(look.properties, 'fill');
  if (fill === undefined || look.properties.has('text')) return look;
  return {
    properties: new Map(look.properties).set('text', readableText(fill)),
    from: new Map(look.from).set('text', index),
    rules: look.rules,
  };
}

/** Where several read cells of a row paint one cell, the first from the left that has an outcome decides. */
export function decidingOutcome(
  running: RunningRule,
  sources: readonly number[],
  slot: number,
): { outcome: number; column: number } {
  for (const column of sources) {
    const outcome = running.outcomeAt(column, slot);
    if (outcome >= 0) return { outcome, column };
  }
  return { outcome: -1, column: sources[0] ?? -1 };
}

/** The read columns that decide over a painted cell of a rule. */
export function sourcesOf(running: RunningRule, column: number): number[] {
  return running.rule.paints === 'cell' ? [column] : running.read.map((read) => read.column);
}

const painterOf = (running: RunningRule, index: number, column: number): PaintingRule[] =>
  running.works && running.painted.has(column)
    ? [
        {
          index,
          running,
          choosesText: kindOf(running.rule.when).choosesText === true,
          sources: sourcesOf(running, column),
        },
      ]
    : [];
