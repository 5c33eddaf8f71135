import { openApiDocument } from '../../../../protocol/programs/openapi';

export const dynamic = 'force-dynamic';

/** What programs can ask, as OpenAPI 3.1. Nobody needs a token to read it. */
export function GET(request: Request): Response {
  const { host } = new URL(request.url);
  const protocol = request.headers.get('x-forwarded-proto') ?? 'http';
  return Response.json(openApiDocument(`${protocol}://${request.headers.get('host') ?? host}`), { headers: { 'access-control-allow-origin': '*' } });
}
