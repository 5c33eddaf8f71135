import { labelFromInput } from '../../../../../core/sheet/label-from-input';
import { ENDPOINTS } from '../../../../../protocol/programs/endpoints';
import { database } from '../../../../../server/database';
import { readFields } from '../../../../../server/sql/field';
import { countRecords, findHeader } from '../../../../../server/sql/row';
import { readRules } from '../../../../../server/sql/rule';
import { findSheet } from '../../../../../server/sql/sheet';
import { answerProgram } from '../../answer-program';

export const dynamic = 'force-dynamic';

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerProgram(ENDPOINTS.readSheet, { request, params }, async ({ program: { sheet }, head }) => {
    const sql = database();
    const [about, fields, header, rules, records] = await Promise.all([
      findSheet(sql, sheet),
      readFields(sql, sheet),
      findHeader(sql, sheet),
      readRules(sql, sheet),
      countRecords(sql, sheet),
    ]);
    return Response.json({
      id: sheet,
      name: about!.name,
      sequence: head,
      records,
      rules: rules.length,
      fields: fields.map(({ id, unit, format }, column) => ({
        label: labelFromInput(header?.cells[id], column),
        unit,
        format,
      })),
    });
  });
}
