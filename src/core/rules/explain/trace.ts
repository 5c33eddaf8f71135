import { lookProperties, nestProperties, type Look, type LookProperty } from '../../looks/look';
import { cellAddress } from '../../sheet/address';
import type { Evaluation } from '../evaluate/evaluation';
import { decidingOutcome, sourcesOf } from '../evaluate/resolver';
import type { RunningRule } from '../evaluate/running-rule';
import { namedFields } from '../shape/named-fields';
import { quietWords } from '../shape/quiet';
import { sentenceWords } from '../shape/sentence-words';

/** The effect of a rule at a cell. */
export interface TraceStep {
  readonly rule: string;
  readonly name: string;
  readonly state: 'matched' | 'not-matched' | 'off' | 'problem' | 'settled-before';
  /** The cell that was read: not always the one that is painted. */
  readonly cell: string | null;
  /** The sentence of a comparison, both sides as shown. */
  readonly compared: string | null;
  readonly note: string | null;
  /** When the rule's findings are reported; null where at once. */
  readonly quiet: string | null;
  /** The properties that the rule set on this cell. */
  readonly set: Record<string, unknown>;
  /** Properties it would have set, and the rule that had set them before. */
  readonly lost: readonly { readonly property: LookProperty; readonly to: string }[];
}

/** Why a cell looks as it does: every rule whose reach includes it, in order, with both sides of each comparison. */
export function traceCell(
  evaluation: Evaluation,
  saved: Readonly<Record<string, Look>>,
  at: { column: number; slot: number },
): TraceStep[] {
  const taken = new Map<LookProperty, string>();
  let settledBy: RunningRule | undefined;
  const steps: TraceStep[] = [];
  for (const running of evaluation.activeRules) {
    const reads = running.read.some((member) => member.column === at.column && member.slots.has(at.slot));
    const sources = running.painted.has(at.column) ? sourcesOf(running, at.column) : [];
    const paints = sources.some((column) =>
      running.read.some((member) => member.column === column && member.slots.has(at.slot)),
    );
    // A rule whose very reach cannot be found might have reached this cell: it is listed too.
    const isLost = running.problem !== null && running.read.length === 0;
    if (!reads && !paints && !isLost) continue;
    const deciding = paints
      ? decidingOutcome(running, sources, at.slot)
      : { outcome: running.outcomeAt(at.column, at.slot), column: at.column };
    const step = describe(evaluation, running, { slot: at.slot, ...deciding });
    if (step.state !== 'matched' || settledBy) {
      steps.push(
        settledBy && step.state === 'matched'
          ? { ...step, state: 'settled-before', note: `"${settledBy.rule.name}" settles` }
          : step,
      );
      continue;
    }
    const look = paints ? running.lookOf(deciding.column, at.slot) : null;
    const set = new Map<LookProperty, unknown>();
    const lost: { property: LookProperty; to: string }[] = [];
    for (const [property, value] of look ? lookProperties(look, saved) : []) {
      const winner = taken.get(property);
      if (winner === undefined) set.set(property, value);
      else lost.push({ property, to: winner });
    }
    for (const property of set.keys()) taken.set(property, running.rule.id);
    if (running.rule.settles && paints) settledBy = running;
    steps.push({ ...step, set: nestProperties(set), lost });
  }
  return steps;
}

function describe(
  { sheet }: Evaluation,
  running: RunningRule,
  at: { column: number; slot: number; outcome: number },
): TraceStep {
  const { rule, problem } = running;
  const compared = problem || at.column < 0 ? undefined : running.explain(at.column, at.slot);
  return {
    rule: rule.id,
    name: rule.name,
    state: problem ? 'problem' : !rule.on ? 'off' : at.outcome >= 0 ? 'matched' : 'not-matched',
    cell: compared ? cellAddress(at.column, sheet.positionOf(at.slot)) : null,
    compared: compared ? `${compared.left} ${compared.relation} ${compared.right}` : null,
    note: problem?.message ?? compared?.note ?? null,
    quiet: rule.quiet ? quietWords(rule, sentenceWords(namedFields(sheet), rule.reads)) : null,
    set: {},
    lost: [],
  };
}
