import { Readable } from 'node:stream';
import {
  EXPORT_FORMATS,
  fileNameOf,
  type ExportFormat,
  type ExportFormatName,
} from '../../../../../../core/exchange/export-formats';
import { ENDPOINTS, RULELESS } from '../../../../../../protocol/programs/endpoints';
import { database, longWork } from '../../../../../../server/database';
import { painter } from '../../../../../../server/painter/painter';
import { readMuch } from '../../../../../../server/replicas';
import { archiveSheet } from '../../../../../../server/sheets/archive-sheet';
import { findSheet } from '../../../../../../server/sql/sheet';
import { Refusal } from '../../../../../../server/refusal';
import { answerProgram, refusalFor } from '../../../answer-program';

export const dynamic = 'force-dynamic';

interface Query {
  readonly format: ExportFormatName | 'archive';
  readonly values: 'shown' | 'typed';
  readonly report: boolean;
}

export function GET(request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  return answerProgram<Query, never>(
    ENDPOINTS.exportSheet,
    { request, params },
    async ({ program: { sheet, scopes }, head, query: { format, values, report } }) => {
      if (!RULELESS.has(format) && !scopes.includes('rules')) throw new Refusal('not-allowed', refusalFor('rules'));
      const attached = (name: string, ending: string) =>
        `attachment; filename*=UTF-8''${encodeURIComponent(fileNameOf(name, ending))}`;
      if (format === 'archive') {
        if (report) return Response.json({ rules: [], notes: [] });
        const { name, packed } = await readMuch(longWork(), (sql) => archiveSheet(sql, sheet));
        return new Response(Readable.toWeb(packed) as ReadableStream<Uint8Array>, {
          headers: { 'content-type': 'application/gzip', 'content-disposition': attached(name, 'auxesis') },
        });
      }
      const made = await painter().export(sheet, { format, options: { values } }, head);
      if (report) return Response.json(made.report);
      const { type, ending }: ExportFormat = EXPORT_FORMATS[format];
      const name = (await findSheet(database(), sheet))?.name ?? '';
      const body = new Blob([...made.parts]);
      return new Response(body, { headers: { 'content-type': type, 'content-disposition': attached(name, ending) } });
    },
  );
}
