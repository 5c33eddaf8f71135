import type { RuleProfile } from '../explain/profile-rule';

/** The kinds of contents in the cells that a rule would read. */
export type Contents = 'numbers' | 'texts' | 'dates';

/** The kinds of contents that are there; none where all is blank. */
export function contentsOf({ profile, dates }: RuleProfile): ReadonlySet<Contents> {
  const found: readonly (Contents | false)[] = [
    profile.numbers > dates && 'numbers',
    profile.others > 0 && 'texts',
    dates > 0 && 'dates',
  ];
  return new Set(found.filter((each) => each !== false));
}

/** Whether something makes sense over such cells: what it needs is there, or they are still to be filled. */
export const suits = (needs: readonly Contents[] | 'anything', contents: ReadonlySet<Contents>): boolean =>
  needs === 'anything' || contents.size === 0 || needs.some((each) => contents.has(each));
