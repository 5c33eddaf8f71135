import { openApiDocument } from '../../../../protocol/programs/openapi';
import { settings } from '../../../../server/settings';

export const dynamic = 'force-dynamic';

/** What programs can ask, as OpenAPI 3.1. Nobody needs a token to read it. */
export function GET(): Response {
  return Response.json(openApiDocument(settings().publicUrl), { headers: { 'access-control-allow-origin': '*' } });
}
