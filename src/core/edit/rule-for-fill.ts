import type { Hex } from '../looks/look';
import { putRules, type StoredRule } from '../rules/shape/stored-rule';
import type { CellStyle, Operation, RowChange } from '../sheet/change';
import type { FieldId } from '../sheet/ids';
import type { Editor } from './editor';
import { patchStyle } from './styles';

interface RuleForFill {
  readonly rule: StoredRule;
  readonly fill: Hex;
  readonly fields: readonly FieldId[];
}

/** A rule replaces a fill that was made by hand: the rule is saved, and records lose the fill in its fields. */
export const putRuleForFill: Editor<RuleForFill> = {
  operations(sheet, { rule, fill, fields }) {
    const cells: CellStyle[] = [];
    for (const field of fields) {
      const column = sheet.findColumn(field);
      if (column === undefined) continue;
      for (const [slot, style] of sheet.column(column).styles)
        if (style.fill === fill && sheet.roleAt(slot) === 'record')
          cells.push({ ...sheet.cellIds(column, slot), style: patchStyle(style, { fill: null }) });
    }
    const rows: RowChange[] = [];
    for (const [slot, { style }] of sheet.rowsWithAbout())
      if (style?.fill === fill && sheet.roleAt(slot) === 'record' && fields.length > 1)
        rows.push({ id: sheet.rowId(slot), style: patchStyle(style, { fill: null }) });
    return [
      putRules([rule]),
      ...(cells.length ? [{ kind: 'set-styles', cells } satisfies Operation] : []),
      ...(rows.length ? [{ kind: 'change-rows', rows } satisfies Operation] : []),
    ];
  },
  says: ({ rule }) => `rule “${rule.rule.name}” for fills`,
};
