import { Refusal } from '../../../../server/refusal';
import { respond } from '../../respond';

export const dynamic = 'force-dynamic';

/** Whatever else is asked of programs: there is no such thing. */
const nothing = (request: Request): Promise<Response> =>
  respond(() => {
    throw new Refusal(
      'no-sheet',
      `There is no ${new URL(request.url).pathname}: what can be asked stands in /api/v1/openapi.json and on the page /programs`,
    );
  });

export { nothing as GET, nothing as POST, nothing as PUT, nothing as PATCH, nothing as DELETE };
