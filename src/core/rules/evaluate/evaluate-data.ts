import type { Table } from '../../values/table';
import { sheetFromTable } from '../../sheet/sheet-from-table';
import type { SheetSettings } from '../../sheet/sheet-settings';
import { serialInZone } from '../../values/dates/serial-in-zone';
import { Evaluation } from './evaluation';
import { mapRuleReferences } from '../shape/map-rule-references';
import { fieldByLabel, type RuleSet } from '../shape/read-rule-set';

export interface DataOptions extends SheetSettings {
  readonly header: boolean;
  /** The moment to judge by, in milliseconds of the Unix epoch. */
  readonly nowMs: number;
}

/** The rules of a rule file over the rows of a data file, their fields matched by label. */
export function evaluateData(table: Table, rules: RuleSet, options: DataOptions): Evaluation {
  const sheet = sheetFromTable(table, options);
  const evaluation = new Evaluation(sheet, rules.looks, { now: serialInZone(options.nowMs, options.zone) });
  evaluation.setRules(rules.rules.map((rule) => mapRuleReferences(rule, { field: fieldByLabel(sheet) })));
  return evaluation;
}
