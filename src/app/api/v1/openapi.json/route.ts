import { openApiDocument } from '../../../../protocol/programs/openapi';
import { settings } from '../../../../server/settings';
import { openRoute } from '../../route-declarations';

export const dynamic = 'force-dynamic';

/** The OpenAPI 3.1 document for programs. It needs no token. */
export const GET = openRoute({}, async () =>
  Response.json(openApiDocument(settings().publicUrl), { headers: { 'access-control-allow-origin': '*' } }),
);
