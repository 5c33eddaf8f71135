import type { SheetRole } from '../../core/sharing/role';

/** What people may do, as it is offered. */
export const ROLES: readonly { readonly role: SheetRole; readonly label: string }[] = [
  { role: 'owner', label: 'Owner: all of it, and who gets it' },
  { role: 'editor', label: 'Editor: cells and rules' },
  { role: 'filler', label: 'Filler: types where it is open' },
  { role: 'viewer', label: 'Viewer: reads, with the legend' },
];
