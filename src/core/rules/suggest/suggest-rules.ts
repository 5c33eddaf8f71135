import { itemAt } from '../../values/item-at';
import type { FieldId } from '../../sheet/ids';
import type { RuleIdea } from '../shape/rule-idea';
import type { RuleProfile } from '../explain/profile-rule';
import { bandLooks } from '../kinds/bands';
import type { When } from '../kinds/registry';

/** A profile of one field. */
export interface FieldProfile {
  readonly field: FieldId;
  readonly profile: RuleProfile;
}

/** Rules for several fields that are offered at once. */
const MAX_OFFERED = 6;

/** Values that a few looks can tell apart. */
const FEW = 8;

/**
 * Rules that suit a field, by its contents: the distribution of its numbers, dates, the number of texts, blanks. The
 * likeliest first, at most four.
 */
export function suggestRules(field: FieldId, { profile, texts, dates }: RuleProfile): RuleIdea[] {
  const { numbers, blanks, lowerQuartile, upperQuartile } = profile;
  const cells = numbers + profile.others + blanks;
  const idea = (when: When, look?: string): RuleIdea => ({
    reads: { fields: [field] },
    when,
    paints: 'cell',
    settles: false,
    ...(look ? { look: { look } } : {}),
  });
  const isDated = dates > numbers / 2;
  const words = texts.reduce((sum, { count }) => sum + count, 0);
  const ideas: (RuleIdea | false)[] = [
    isDated && idea({ kind: 'date', is: 'past' }, 'alarm'),
    isDated && idea({ kind: 'date', is: { next: 7, unit: 'day' } }, 'watch'),
    !isDated &&
      numbers > words &&
      lowerQuartile < upperQuartile &&
      idea({ kind: 'average', is: 'above', deviations: 2 }, 'alarm'),
    !isDated &&
      numbers > words &&
      lowerQuartile < upperQuartile &&
      idea({ kind: 'bands', cuts: [lowerQuartile, upperQuartile], looks: bandLooks(3) }),
    words > numbers && texts.length <= FEW && texts.length > 1 && idea({ kind: 'category', palette: 'pastel' }),
    words > numbers &&
      texts.length > FEW &&
      itemAt(texts, 0).count > 1 &&
      itemAt(texts, 0).count <= 3 &&
      idea({ kind: 'repeat', is: 'repeated' }, 'watch'),
    words > numbers &&
      texts.length > FEW &&
      idea({ kind: 'text', is: 'contains', any: [itemAt(texts, 0).text] }, 'cool'),
    blanks > 0 && blanks < cells / 2 && idea({ kind: 'state', is: 'blank' }, 'ringed'),
    profile.others > words && idea({ kind: 'state', is: 'error' }, 'alarm'),
  ];
  return ideas.filter((each) => each !== false).slice(0, 4);
}

/** Rules that suit each of some fields: the likeliest of each field before any second one. At most six. */
export function suggestEach(profiles: readonly FieldProfile[]): RuleIdea[] {
  const suggested = profiles.map(({ field, profile }) => suggestRules(field, profile));
  const most = Math.max(0, ...suggested.map((ideas) => ideas.length));
  return Array.from({ length: most }, (_, rank) => suggested.flatMap((ideas) => ideas[rank] ?? []))
    .flat()
    .slice(0, MAX_OFFERED);
}
