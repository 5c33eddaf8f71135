import type { SheetRole } from '../../core/sharing/role';

/** The words for what each role may do. */
export const ROLES: readonly { readonly role: SheetRole; readonly label: string }[] = [
  { role: 'owner', label: 'Owner: all of it, and who gets it' },
  { role: 'editor', label: 'Editor: cells and rules' },
  { role: 'filler', label: 'Filler: types where it is open' },
  { role: 'viewer', label: 'Viewer: reads, with the legend' },
];
