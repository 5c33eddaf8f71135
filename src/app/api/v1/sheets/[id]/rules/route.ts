import { ENDPOINTS } from '../../../../../../protocol/programs/endpoints';
import { database } from '../../../../../../server/database';
import { ChangedSince, replaceRules, rulesOfSheet } from '../../../../../../server/programs/rules-of-sheet';
import { answerProgram } from '../../../answer-program';
import { refusalText } from '../../../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

export function GET(request: Request, { params }: Context): Promise<Response> {
  return answerProgram(ENDPOINTS.readRules, { request, params }, async ({ program }) =>
    Response.json(await rulesOfSheet(database(), program.sheet)),
  );
}

export function PUT(request: Request, { params }: Context): Promise<Response> {
  return answerProgram<never, object>(ENDPOINTS.replaceRules, { request, params }, async ({ program, body }) => {
    const match = /-(\d+)"$/.exec(request.headers.get('if-match') ?? '')?.[1];
    try {
      return Response.json(
        await replaceRules(database(), { program, file: body, readAt: match === undefined ? null : Number(match) }),
      );
    } catch (error) {
      if (!(error instanceof ChangedSince)) throw error;
      return Response.json({ refused: refusalText('sheetHasBeenChanged') }, { status: 412 });
    }
  });
}
