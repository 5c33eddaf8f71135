import Joi from 'joi';
import type { Theme } from '../../core/looks/first-family';
import { isMaker, OWN_ALL, type Reader, READER_ROLES } from '../../core/sharing/role';
import type { Access } from '../../server/access/access';
import { Refusal } from '../../server/refusal';
import { refusalText } from '../../texts/refusal-text';

export interface ViewQuery {
  readonly theme: Theme;
  /** For those who get the rules: as whom they want to see the sheet. */
  readonly as?: Reader['role'];
}

/** How a painted sheet is asked for. */
export const viewQuery = Joi.object<ViewQuery>({
  theme: Joi.valid('light', 'dark').default('light'),
  as: Joi.valid(...READER_ROLES),
});

/** As whom somebody gets the painted sheet: as what they are, or, where they get everything, as they ask. */
export function readerOf({ role, own }: Access, as: Reader['role'] | undefined): Reader {
  if (!isMaker(role)) return { role, own };
  if (as === undefined) throw new Refusal('bad-request', refusalText('asMustSayAs'));
  return { role: as, own: OWN_ALL };
}
