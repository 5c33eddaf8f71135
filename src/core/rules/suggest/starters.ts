import { foldText } from '../../values/fold-text';
import type { Contents } from './field-contents';
import { KINDS } from '../kinds/registry';
import type { RuleProfile } from '../explain/profile-rule';
import type { FieldId } from '../../sheet/ids';
import type { RuleIdea } from '../shape/rule-idea';
import type { NamedField } from '../shape/sentence-words';

interface StarterContext {
  readonly field: NamedField;
  /** The fields that are read: this one, and others that were selected with it. */
  readonly read?: readonly FieldId[];
  /** All fields, in their order. */
  readonly fields: readonly NamedField[];
  readonly profile: RuleProfile;
}

/** A ready-made rule for a common job, fitted to the field it is begun from. */
export interface Starter {
  readonly id: string;
  readonly title: string;
  readonly says: string;
  /** The contents that the field must have. */
  readonly needs: readonly Contents[] | 'anything';
  make(context: StarterContext): RuleIdea;
}

const over = (field: NamedField, when: RuleIdea['when'], more: Partial<RuleIdea> = {}): RuleIdea => ({
  reads: { fields: [field.id] },
  when,
  paints: 'cell',
  settles: false,
  ...more,
});

/** The rule of a starter over all fields that it is begun from. */
export const begun = (starter: Starter, context: StarterContext): RuleIdea => ({
  ...starter.make(context),
  reads: { fields: context.read ?? [context.field.id] },
});

/**
 * The field that most likely goes with another: one that is called the key or the plan, else the next one, else the one
 * before.
 */
function partnerOf({ field, fields, read = [field.id] }: StarterContext, names: RegExp): NamedField {
  const isFree = ({ id }: NamedField): boolean => !read.includes(id);
  const at = fields.findIndex(({ id }) => id === field.id);
  const named = fields.find((each) => isFree(each) && names.test(foldText(each.label)));
  return named ?? fields.slice(at + 1).find(isFree) ?? fields.slice(0, at).findLast(isFree) ?? field;
}

export const STARTERS: readonly Starter[] = [
  {
    id: 'limit',
    needs: ['numbers'],
    title: 'Flag what is below a limit',
    says: 'and paint the whole record',
    make: ({ field, profile }) =>
      over(field, KINDS.compare.defaults(profile.profile), { paints: 'record', look: { look: 'alarm' } }),
  },
  {
    id: 'answers',
    needs: 'anything',
    title: 'Check answers against a key',
    says: 'right, wrong and empty',
    make: (context) =>
      over(context.field, {
        ...KINDS.key.defaults(context.profile.profile),
        expect: { field: partnerOf(context, /\b(?:key|answers?|expected|solution)\b/).id },
      }),
  },
  {
    id: 'two-fields',
    needs: ['numbers'],
    title: 'Compare two fields',
    says: 'with a tolerance',
    make: (context) =>
      over(
        context.field,
        {
          kind: 'compare',
          is: '<',
          to: { field: partnerOf(context, /\b(?:plan|planned|target|level|limit|expected)\b/).id, times: 0.9 },
        },
        { paints: 'record', look: { look: 'watch' } },
      ),
  },
  {
    id: 'bands',
    needs: ['numbers'],
    title: 'Low, middle and high',
    says: 'by cut points',
    make: ({ field, profile }) => over(field, KINDS.bands.defaults(profile.profile)),
  },
  {
    id: 'due',
    needs: ['dates'],
    title: 'Due dates',
    says: 'what is due in the next 7 days',
    make: ({ field }) => over(field, { kind: 'date', is: { next: 7, unit: 'day' } }, { look: { look: 'watch' } }),
  },
  {
    id: 'changed',
    needs: 'anything',
    title: 'Changed recently',
    says: 'in the last day',
    make: ({ field }) =>
      over(field, { kind: 'change', is: 'changed', within: { n: 1, unit: 'day' } }, { look: { look: 'cool' } }),
  },
  {
    id: 'repeats',
    needs: 'anything',
    title: 'Find duplicates',
    says: 'values that occur more than once',
    make: ({ field }) => over(field, { kind: 'repeat', is: 'repeated' }, { look: { look: 'plum' } }),
  },
  {
    id: 'top',
    needs: ['numbers'],
    title: 'Find the top 10',
    says: 'or the bottom, or a share',
    make: ({ field }) => over(field, { kind: 'rank', is: 'top', n: 10 }, { look: { look: 'clear' } }),
  },
  {
    id: 'shades',
    needs: ['numbers'],
    title: 'Colour scale',
    says: 'a colour for every number',
    make: ({ field, profile }) => over(field, KINDS.scale.defaults(profile.profile)),
  },
];
