import { Refusal } from '../../../../server/refusal';
import { respond } from '../../respond';
import { refusalText } from '../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

/** Whatever else is asked of programs: there is no such thing. */
const nothing = (request: Request): Promise<Response> =>
  respond(() => {
    throw new Refusal('no-sheet', refusalText('thereNoPathnameWhat', { pathname: new URL(request.url).pathname }));
  });

export { nothing as GET, nothing as POST, nothing as PUT, nothing as PATCH, nothing as DELETE };
