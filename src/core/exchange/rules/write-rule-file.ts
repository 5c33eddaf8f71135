import { rulesOf } from '../../rules/shape/stored-rule';
import { lookOfPart, lookParts } from '../../sheet/sheet-looks';
import type { Look } from '../../looks/look';
import type { ExportedFile } from '../exported-file';
import type { ExportSource } from '../export-source';
import { columnLetters } from '../../sheet/address';
import type { Sheet } from '../../sheet/sheet';
import { mapRuleReferences } from '../../rules/shape/map-rule-references';
import type { Rule } from '../../rules/shape/rule';
import { savedLooksOf } from '../../rules/shape/rule-schema';

/** Rules as a rule file has them: fields by label, and the saved looks that they use beside them. */
export function ruleFile(rules: readonly Rule[], sheet: Sheet, saved: Readonly<Record<string, Look>>): object {
  const labelOf = (id: string): string => {
    const column = sheet.findColumn(id);
    return column === undefined ? id : (sheet.labelOf(column) ?? columnLetters(column));
  };
  const used = new Set(rules.flatMap((rule) => savedLooksOf(rule)));
  const own = new Set(lookParts(sheet.parts.values()).map(({ id }) => lookOfPart(id)));
  const looks = Object.fromEntries(Object.entries(saved).filter(([id]) => used.has(id) || own.has(id)));
  return {
    format: 'auxesis-rules',
    version: 1,
    rules: rules.map((rule) => mapRuleReferences(rule, { field: labelOf })),
    ...(Object.keys(looks).length ? { looks } : {}),
  };
}

/** All rules of a sheet, also those that are off, as a rule file. */
export function writeRuleFile({ sheet, looks }: ExportSource): ExportedFile {
  const rules = rulesOf(sheet).map(({ rule }) => rule);
  return {
    parts: [`${JSON.stringify(ruleFile(rules, sheet, looks), null, 2)}\n`],
    report: {
      rules: rules.map(({ name }) => ({ name, as: 'rule', note: '' })),
      notes: ['Values and formatting are not part of a rule file'],
    },
  };
}
