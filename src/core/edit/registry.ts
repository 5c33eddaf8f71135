import { entryOf } from '../values/entry-of';
import type { Operation } from '../sheet/change';
import type { Sheet } from '../sheet/sheet';
import { clearCells, fillCells, pasteCells } from './cells';
import type { Editor, EditTools } from './editor';
import { hideFields, insertFields, moveFields, removeFields, setAllowed, setWidths } from './fields';
import { replaceText } from './find';
import { mergeCells, splitCells } from './merge';
import { carryRules, changeRules, duplicateRule, moveRule, putRulesEditor, reachRules, removeRules } from './rules';
import {
  duplicateRows,
  insertRows,
  moveRows,
  removeDuplicates,
  removeRows,
  setHeight,
  setRole,
  shiftLevel,
} from './rows';
import { putRuleForFill } from './rule-for-fill';
import { addTotals, setTotal } from './totals';
import { bandRecords, freezeFields, nameCells, removeName } from './sheet-wide';
import { sortRows } from './sort';
import { applyStyle, changeDecimals, clearStyle, outlineCells } from './styles';

/** Everything that people do to cells, rows, fields and rules. */
export const EDITORS = {
  'paste-cells': pasteCells,
  'clear-cells': clearCells,
  'fill-cells': fillCells,
  'replace-text': replaceText,
  'insert-rows': insertRows,
  'remove-rows': removeRows,
  'remove-duplicates': removeDuplicates,
  'move-rows': moveRows,
  'duplicate-rows': duplicateRows,
  'set-role': setRole,
  'set-height': setHeight,
  'set-total': setTotal,
  'add-totals': addTotals,
  'shift-level': shiftLevel,
  'sort-rows': sortRows,
  'insert-fields': insertFields,
  'remove-fields': removeFields,
  'move-fields': moveFields,
  'set-widths': setWidths,
  'hide-fields': hideFields,
  'set-allowed': setAllowed,
  'apply-style': applyStyle,
  'outline-cells': outlineCells,
  'clear-style': clearStyle,
  'change-decimals': changeDecimals,
  'merge-cells': mergeCells,
  'split-cells': splitCells,
  'freeze-fields': freezeFields,
  'band-records': bandRecords,
  'name-cells': nameCells,
  'remove-name': removeName,
  'put-rules': putRulesEditor,
  'put-rule-for-fill': putRuleForFill,
  'duplicate-rule': duplicateRule,
  'move-rule': moveRule,
  'remove-rules': removeRules,
  'change-rules': changeRules,
  'reach-rules': reachRules,
  'carry-rules': carryRules,
} as const;

type EditOf<E> = E extends Editor<infer T> ? T : never;
export type EditName = keyof typeof EDITORS;
/** One edit, as it travels to where it is done. */
export type Edit = { [K in EditName]: { readonly do: K } & EditOf<(typeof EDITORS)[K]> }[EditName];

/** The registry pairs each name with the editor that takes it. */
const editorOf = (edit: Edit): Editor<Edit> => entryOf(EDITORS, edit.do);

export const operationsOf = (sheet: Sheet, edit: Edit, tools: EditTools): readonly Operation[] =>
  editorOf(edit).operations(sheet, edit, tools);
export const editWords = (edit: Edit): string => editorOf(edit).says(edit);
