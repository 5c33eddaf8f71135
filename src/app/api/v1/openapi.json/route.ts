import { openApiDocument } from '../../../../protocol/programs/openapi';
import { settings } from '../../../../server/settings';

export const dynamic = 'force-dynamic';

/** The OpenAPI 3.1 document for programs. It needs no token. */
export function GET(): Response {
  return Response.json(openApiDocument(settings().publicUrl), { headers: { 'access-control-allow-origin': '*' } });
}
