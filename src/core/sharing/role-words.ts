import type { LinkRole, SheetRole } from './role';

/** What each role may do, for those who give it. */
export const ROLE_WORDS: Readonly<Record<SheetRole, string>> = {
  owner: 'Owner: everything, and sharing',
  editor: 'Editor: cells and rules',
  filler: 'Filler: fills in open cells',
  viewer: 'Viewer: views, with the legend',
};

interface LinkRoleWords {
  /** Somebody of this role, as in "would like you to have it as an editor". */
  readonly noun: string;
  /** What they may do with the sheet, as in "you may read". */
  readonly may: string;
  /** What a link is for: in short, and for those who make it. */
  readonly brief: string;
  readonly link: string;
  /** How the sheet stands in their list, before its owner's name. */
  readonly listed: string;
}

/** The words for roles that somebody is given. */
export const LINK_ROLE_WORDS: Readonly<Record<LinkRole, LinkRoleWords>> = {
  editor: {
    noun: 'an editor',
    may: 'work on, with its rules',
    brief: 'to work on',
    link: 'Edit cells and rules',
    listed: 'edited with',
  },
  filler: { noun: 'a filler', may: 'fill in', brief: 'to fill in', link: 'Fill in', listed: 'to fill in for' },
  viewer: {
    noun: 'a viewer',
    may: 'read',
    brief: 'to read',
    link: 'View, with the legend',
    listed: 'to read, from',
  },
};
