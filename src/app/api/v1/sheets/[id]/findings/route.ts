import { lastItem } from '../../../../../../core/values/item-at';
import { ENDPOINTS } from '../../../../../../protocol/programs/endpoints';
import { database } from '../../../../../../server/database';
import { readMuch } from '../../../../../../server/replicas';
import { Refusal } from '../../../../../../server/refusal';
import { pageOfFindings } from '../../../../../../server/sql/finding';
import { answerProgram } from '../../../answer-program';
import { refusalText } from '../../../../../../texts/refusal-text';

export const dynamic = 'force-dynamic';

interface Query {
  readonly limit: number;
  readonly cursor?: string;
  readonly rule?: string;
}

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerProgram<Query, never>(
    ENDPOINTS.readFindings,
    { request, params },
    async ({ program, query: { limit, cursor, rule } }) => {
      const before = cursor === undefined ? undefined : Number(cursor);
      if (before !== undefined && !Number.isSafeInteger(before))
        throw new Refusal('bad-request', refusalText('cursorNotOnePage'));
      const findings = await readMuch(database(), (sql) => pageOfFindings(sql, program.sheet, { limit, rule, before }));
      return Response.json({ findings, next: findings.length === limit ? String(lastItem(findings).id) : null });
    },
  );
}
