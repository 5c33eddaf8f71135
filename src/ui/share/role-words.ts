import type { LinkRole, SheetRole } from '../../core/sharing/role';

/** The words for what each role may do. */
export const ROLE_WORDS: Readonly<Record<SheetRole, string>> = {
  owner: 'Owner: all of it, and who gets it',
  editor: 'Editor: cells and rules',
  filler: 'Filler: types where it is open',
  viewer: 'Viewer: reads, with the legend',
};

/** What a link of a role is for. */
export const LINK_WORDS: Readonly<Record<LinkRole, string>> = {
  editor: 'to work on, with its rules',
  filler: 'to fill in',
  viewer: 'to read, with the legend',
};
