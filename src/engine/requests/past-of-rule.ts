import { PastReplay, type Found, type Unreplayed } from '../../core/findings/past/replay-past';
import type { Spell } from '../../core/findings/past/spells';
import { summarizeSpells } from '../../core/findings/past/summarize-spells';
import { recordName } from '../../core/rules/explain/record-name';
import { kindOf } from '../../core/rules/kinds/registry';
import { namedFields } from '../../core/rules/shape/named-fields';
import type { Rule } from '../../core/rules/shape/rule';
import { sentenceWords } from '../../core/rules/shape/sentence-words';
import { columnLetters } from '../../core/sheet/address';
import type { FieldId, RowId } from '../../core/sheet/ids';
import { isoFromSerial } from '../../core/values/dates/date-serial';
import type { PastAsked, PastRow, RulePast } from '../../protocol/rule-past';
import type { Replica } from '../replica/replica';

/** Rows of a table that is taken out. */
const MAX_ROWS = 50_000;

/** The past of rules over one open sheet: what it is made of is kept while no change comes. */
export class PastOfRules {
  private kept: { readonly of: Replica; readonly version: string; readonly replay: PastReplay } | null = null;

  private replayOf(replica: Replica): PastReplay {
    const version = replica.pastVersion;
    if (this.kept?.of !== replica || this.kept.version !== version)
      this.kept = { of: replica, version, replay: new PastReplay(replica.evaluation.world, replica.past) };
    return this.kept.replay;
  }

  /** What a rule would have found. */
  summary(replica: Replica, rule: Rule, asked: PastAsked): RulePast {
    const { sheet, past } = replica;
    const now = momentOf(replica);
    if (past.knownFrom === Infinity) return { gap: 'reading' };
    const known = this.foundBy(replica, rule);
    if (!isFound(known)) return gapOf(known);
    const from = Math.max(past.knownFrom, asked.days === null ? -Infinity : now - asked.days);
    const { most, ...summary } = summarizeSpells(since(known.found, from), { from, to: now });
    const painted = rule.quiet ? known.painted.filter((spell) => spell.from > from).length : null;
    return {
      gap: null,
      summary,
      painted,
      most: most.map(({ row, field, times, days, isNow }) => ({
        cell: { row, field },
        ...this.named(replica, row, field),
        isThere: sheet.findSlot(row) !== undefined,
        times,
        days,
        isNow,
      })),
    };
  }

  /** Each time that a cell would have had the look, as rows of a table, the latest first. */
  rows(replica: Replica, rule: Rule, asked: PastAsked): PastRow[] {
    const now = momentOf(replica);
    const known = this.foundBy(replica, rule);
    if (!isFound(known)) return [];
    const words = sentenceWords(namedFields(replica.sheet), rule.reads);
    const from = Math.max(replica.past.knownFrom, asked.days === null ? -Infinity : now - asked.days);
    return since(known.found, from)
      .sort((a, b) => b.from - a.from)
      .slice(0, MAX_ROWS)
      .map((spell) => ({
        ...this.named(replica, spell.row, spell.field),
        outcome: kindOf(rule.when).outcomeName(rule.when, spell.outcome, words),
        entered: isoFromSerial(spell.from),
        left: spell.to === Infinity ? '' : isoFromSerial(spell.to),
        days: Math.round((Math.min(spell.to, now) - spell.from) * 1000) / 1000,
      }));
  }

  private foundBy(replica: Replica, rule: Rule): Found | Unreplayed {
    return this.replayOf(replica).foundBy(rule, momentOf(replica));
  }

  private named({ sheet }: Replica, row: RowId, field: FieldId): { readonly record: string; readonly label: string } {
    const [slot, column] = [sheet.findSlot(row), sheet.findColumn(field)];
    return {
      record:
        slot === undefined
          ? 'a deleted record'
          : recordName(sheet, slot, new Set(column === undefined ? [] : [column])),
      label: column === undefined ? '' : (sheet.labelOf(column) ?? columnLetters(column)),
    };
  }
}

/** The present moment. The evaluation's clock moves once a minute, so the last change can be later than it. */
const momentOf = ({ evaluation, past }: Replica): number =>
  Math.max(evaluation.world.formulas.now, past.knownUntil + 1e-6);

/** Those that were under way at a moment, or began later. */
const since = (spells: readonly Spell[], from: number): Spell[] => spells.filter(({ to }) => to > from);

const isFound = (past: Found | Unreplayed): past is Found => typeof past === 'object' && 'found' in past;

const gapOf = (why: Unreplayed): RulePast =>
  typeof why === 'string' ? { gap: why } : { gap: 'cannot-work', message: why.message };
