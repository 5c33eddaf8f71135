import type { Look } from '../looks/look';
import type { Evaluation } from '../rules/evaluate/evaluation';
import { Resolver } from '../rules/evaluate/resolver';
import type { RunningRule } from '../rules/evaluate/running-rule';
import type { CellRange } from '../sheet/address';
import type { RuleId } from '../sheet/ids';
import type { Sheet } from '../sheet/sheet';

/** The source of an export: a sheet with its evaluated rules. */
export interface ExportSource {
  readonly name: string;
  readonly sheet: Sheet;
  /** The rules that take part, in order of precedence, and the looks that come of them. */
  readonly running: readonly RunningRule[];
  readonly resolver: Resolver;
  /** Saved looks by id. */
  readonly looks: Readonly<Record<string, Look>>;
  /** The part that is wanted; all of it where absent. */
  readonly area?: CellRange;
}

interface ExportQuery {
  readonly name: string;
  readonly looks: Readonly<Record<string, Look>>;
  readonly area?: CellRange | undefined;
  /** Rules that do not belong to the sheet, such as drafts. */
  readonly without?: ReadonlySet<RuleId>;
}

/** A sheet as it is now, with its rules that are on and work. */
export function exportSource(
  { sheet, activeRules }: Evaluation,
  { name, looks, area, without = new Set() }: ExportQuery,
): ExportSource {
  const own = activeRules.filter(({ works, rule }) => works && !without.has(rule.id));
  return { name, sheet, running: own, resolver: new Resolver(own, looks, sheet), looks, ...(area ? { area } : {}) };
}

/**
 * All of a sheet as far as something stands in it or is formatted: beyond that are blank rows and fields to type in.
 */
export function wholeArea(sheet: Sheet): CellRange {
  const isUsed = (column: number, slot: number) =>
    sheet.column(column).inputAt(slot) !== '' || sheet.column(column).styles.has(slot);
  const bottom = sheet.order.findLastIndex((slot) => sheet.fields.some((_, column) => isUsed(column, slot)));
  const right = sheet.fields.findLastIndex((_, column) => sheet.order.some((slot) => isUsed(column, slot)));
  return { left: 0, top: 0, right: Math.max(0, right), bottom: Math.max(0, bottom) };
}

/** The fate of a rule in a file. */
export interface RuleFate {
  readonly name: string;
  /** A rule of the standard of its own kind, one by a formula, formatting of the cells that match now, or nothing. */
  readonly as: 'rule' | 'formula' | 'formatting' | 'nothing';
  /** Notes on the export; empty where there are none. */
  readonly note: string;
}

/** The fates in words, as in "Low oxygen: as a rule". */
export const FATE_WORDS: Readonly<Record<RuleFate['as'], string>> = {
  rule: 'as a rule',
  formula: 'as formulas',
  formatting: 'as plain formatting',
  nothing: 'left out',
};

/** Rules that come out alike: with the same note and in the same form. */
export interface FateGroup extends Omit<RuleFate, 'name'> {
  readonly names: readonly string[];
}

/** The fates of rules, those that are alike together, in the order of the first of each. */
export function fateGroups(rules: readonly RuleFate[]): FateGroup[] {
  const groups = new Map<string, { as: RuleFate['as']; note: string; names: string[] }>();
  for (const { name, as, note } of rules) {
    const key = `${as} ${note}`;
    const group = groups.get(key);
    if (group) group.names.push(name);
    else groups.set(key, { as, note, names: [name] });
  }
  return [...groups.values()];
}

/** The differences between the file and the sheet. */
export interface ExportReport {
  readonly rules: readonly RuleFate[];
  readonly notes: readonly string[];
}
