import { ENDPOINTS, type RecordsQuery, type UpsertBody } from '../../../../../../protocol/programs/endpoints';
import { database } from '../../../../../../server/database';
import { painter } from '../../../../../../server/painter/painter';
import { upsertRecords } from '../../../../../../server/programs/upsert-records';
import { Refusal } from '../../../../../../server/refusal';
import { answerProgram } from '../../../answer-program';
import { refusalText } from '../../../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

interface Context {
  readonly params: Promise<{ id: string }>;
}

export function GET(request: Request, { params }: Context): Promise<Response> {
  return answerProgram<RecordsQuery, never>(
    ENDPOINTS.readRecords,
    { request, params },
    async ({ program: { sheet }, head, query }) => {
      const { limit, cursor, where = [], rule, looks } = query;
      const wanted = {
        limit,
        where,
        looks,
        ...(cursor === undefined ? {} : { after: cursor }),
        ...(rule === undefined ? {} : { rule }),
      };
      return Response.json(await painter().records(sheet, wanted, head));
    },
  );
}

/** Keys as long as common practice has them. */
const KEY = /^[\x21-\x7e]{1,200}$/;

export function PUT(request: Request, { params }: Context): Promise<Response> {
  return answerProgram<never, UpsertBody>(ENDPOINTS.upsertRecords, { request, params }, async ({ program, body }) => {
    const idempotencyKey = request.headers.get('idempotency-key') ?? undefined;
    if (idempotencyKey !== undefined && !KEY.test(idempotencyKey))
      throw new Refusal('bad-request', refusalText('idempotencyKeyMust1'));
    return Response.json(await upsertRecords(database(), { program, body, idempotencyKey }));
  });
}
