import type { RuleWorld } from '../../rules/compile/compile-context';
import type { CellPast } from '../../rules/evaluate/cell-past';
import { RunningRule } from '../../rules/evaluate/running-rule';
import type { Rule } from '../../rules/shape/rule';
import type { Problem } from '../../rules/terms';
import { cellAddress } from '../../sheet/address';
import { writtenFor } from '../../rules/move/follow-layout';
import type { Sheet } from '../../sheet/sheet';
import { quietLimits, stayCondition } from '../../rules/shape/quiet';
import { quietSpells } from '../quiet/quiet-spells';
import { UNWATCHED_KINDS } from '../rule-watch';
import { RecordVersions } from './record-versions';
import { isByRecord, replayByRecord } from './replay-rule';
import { replayInSteps } from './replay-steps';
import type { Spell } from './spells';

/** Why the past of a rule cannot be shown. */
export type Unreplayed = 'shades-all' | 'needs-past' | 'nothing-known' | Problem;

export interface Found {
  readonly found: readonly Spell[];
  /** As its look comes and goes. */
  readonly painted: readonly Spell[];
}

const isSpells = (spells: readonly Spell[] | Unreplayed): spells is readonly Spell[] => Array.isArray(spells);

/**
 * Replays rules over the past of a sheet. The versions of its records are made once, and are good for all rules: a
 * limit that is dragged is evaluated over them again.
 */
export class PastReplay {
  private made: RecordVersions | null = null;

  constructor(
    private readonly world: RuleWorld,
    private readonly past: CellPast,
  ) {}

  private get versions(): RecordVersions {
    return (this.made ??= new RecordVersions(this.world.sheet, this.past));
  }

  /** When each cell would have been found by a rule: from when that would have been reported, where the rule is quiet. */
  foundBy(rule: Rule, now: number): Found | Unreplayed {
    const painted = this.spellsOf(rule, now);
    if (!isSpells(painted)) return painted;
    if (!rule.quiet) return { found: painted, painted };
    const when = stayCondition(rule);
    const stays = when && this.spellsOf({ ...rule, when }, now);
    if (stays && !isSpells(stays)) return stays;
    const limits = quietLimits(rule.quiet);
    return { found: quietSpells(painted, { stays, limits, begins: this.past.knownFrom, now }), painted };
  }

  /** When each cell would have had a look by a rule, since the past is known; or why that cannot be said. */
  spellsOf(given: Rule, now: number): readonly Spell[] | Unreplayed {
    const begins = this.past.knownFrom;
    if (!(begins < now)) return 'nothing-known';
    if (UNWATCHED_KINDS.some((kind) => kind === given.when.kind)) return 'shades-all';
    const { sheet, formulas } = this.world;
    const rule = { ...anchored(given, sheet), on: true };
    const world: RuleWorld = { ...this.world, formulas: { ...formulas, now }, history: null };
    const running = new RunningRule(rule, world);
    if (running.needsHistory) return 'needs-past';
    if (running.problem) return running.problem;
    const hasFormulas = running.columnsRead().some((column) => sheet.column(column).formulas.some(() => true));
    return isByRecord(rule, running) && !hasFormulas
      ? replayByRecord(this.versions, rule, { world, running, begins })
      : replayInSteps(world, this.versions, { rule, begins, now });
  }
}

/** A rule whose formula is written for the cell that it is now: then another one may have been the first. */
function anchored(rule: Rule, sheet: Sheet): Rule {
  if (rule.when.kind !== 'formula' || rule.when.at !== undefined) return rule;
  const { column, position } = writtenFor(rule, sheet);
  return { ...rule, when: { ...rule.when, at: cellAddress(column, position) } };
}
