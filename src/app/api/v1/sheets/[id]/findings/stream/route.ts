import { ENDPOINTS } from '../../../../../../../protocol/programs/endpoints';
import { database } from '../../../../../../../server/database';
import { eventResponse } from '../../../../../../../server/live/event-stream';
import { findingStream } from '../../../../../../../server/live/finding-stream';
import { hashToken } from '../../../../../../../server/people/token';
import { findProgram } from '../../../../../../../server/sql/program';
import { answerProgram, bearerOf } from '../../../../answer-program';

export const dynamic = 'force-dynamic';

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerProgram(ENDPOINTS.followFindings, { request, params }, async ({ program }) => {
    const last = Number(request.headers.get('last-event-id') ?? NaN);
    const mayRead = async () => (await findProgram(database(), hashToken(bearerOf(request) ?? ''))) !== undefined;
    const served = { sheet: program.sheet, author: `program ${program.id}` };
    return eventResponse(
      findingStream(database(), {
        sheet: program.sheet,
        after: Number.isSafeInteger(last) ? last : null,
        signal: request.signal,
        served,
        mayRead,
      }),
    );
  });
}
