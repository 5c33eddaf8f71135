import Joi from 'joi';
import type { Rule } from '../core/rules/shape/rule';
import { ruleSchema } from '../core/rules/shape/rule-schema';
import type { FieldId } from '../core/sheet/ids';
import type { LookPart } from '../core/sheet/sheet-part';
import { lookPartSchema } from './change-schema';

/**
 * Rules that can be used in several sheets: with the labels of the fields that they name, by which they find those of a
 * sheet.
 */
export interface RuleSetBody {
  /** The fields of the sheet where they were made, from the left. */
  readonly fields: readonly { readonly id: FieldId; readonly label: string }[];
  readonly rules: readonly Rule[];
  readonly looks: readonly LookPart[];
}

/** A rule set as it is listed. */
export interface RuleSetHead {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly rules: number;
  /** True for those who may save a new version. */
  readonly isOwn: boolean;
}

export interface RuleSetWhole extends RuleSetHead {
  readonly body: RuleSetBody;
}

/** A rule set as it arrives from outside. */
export const ruleSetBody = Joi.object<RuleSetBody>({
  fields: Joi.array()
    .items(Joi.object({ id: Joi.string().max(64).required(), label: Joi.string().max(500).required() }))
    .max(1000)
    .required(),
  rules: Joi.array().items(ruleSchema(Joi)).min(1).max(200).unique('id').required(),
  looks: Joi.array().items(lookPartSchema).max(200).required(),
});
