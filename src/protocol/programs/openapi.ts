import joiToJson from 'joi-to-json';
import type Joi from 'joi';
import type { Endpoint } from './endpoint';
import { ENDPOINTS } from './endpoints';
import { SCOPES } from './scopes';

const VERSION = '1.0.0';

type Json = Readonly<Record<string, unknown>>;

/** One request as the page for people shows it. */
export interface DescribedRequest extends Pick<
  Endpoint,
  'id' | 'method' | 'path' | 'says' | 'about' | 'scope' | 'example'
> {
  readonly parameters: readonly { readonly name: string; readonly in: string; readonly description?: string }[];
}

/** All requests as the page for people shows them. */
export const describedRequests = (): DescribedRequest[] =>
  Object.values<Endpoint>(ENDPOINTS).map((endpoint) => {
    const { id, method, path, says, about, scope, example } = endpoint;
    const { parameters } = operationOf(endpoint) as unknown as Pick<DescribedRequest, 'parameters'>;
    return {
      id,
      method,
      path,
      says,
      scope,
      ...(about === undefined ? {} : { about }),
      ...(example === undefined ? {} : { example }),
      parameters: parameters.filter((parameter) => parameter.in !== 'path'),
    };
  });

/**
 * A schema as OpenAPI 3.1 has it (JSON Schema 2020-12); where it is checked by hand, that of the schema that describes
 * it.
 */
function schemaOf(schema: Joi.Schema): Json {
  const [described] = ((schema.$_terms.metas ?? []) as readonly object[]).flatMap(
    (meta) => (meta as { described?: Joi.Schema }).described ?? [],
  );
  return joiToJson(described ?? schema, 'open-api-3.1') as Json;
}

/** The OpenAPI 3.1 document for programs, from the schemas that requests are checked by. */
export function openApiDocument(server: string): Json {
  const paths: Record<string, Record<string, Json>> = {};
  for (const endpoint of Object.values<Endpoint>(ENDPOINTS))
    (paths[endpoint.path] ??= {})[endpoint.method] = operationOf(endpoint);
  return {
    openapi: '3.1.0',
    info: {
      title: 'Auxesis for programs',
      version: VERSION,
      description:
        'Records, rules and findings of a sheet, for programs. A token works for one sheet; its owner creates it under Share, Programs.',
    },
    servers: [{ url: `${server}/api/v1` }],
    security: [{ token: [] }],
    paths,
    components: {
      securitySchemes: {
        token: {
          type: 'http',
          scheme: 'bearer',
          description: Object.entries(SCOPES)
            .map(([scope, words]) => `${scope}: ${words}`)
            .join('; '),
        },
      },
      schemas: {
        Refused: {
          type: 'object',
          properties: {
            refused: { type: 'string', description: 'Why, in plain words, with the place in the request' },
          },
          required: ['refused'],
        },
      },
    },
  };
}

const REFUSED: Readonly<Record<string, string>> = {
  '400': 'The request is invalid',
  '401': 'The token is missing, wrong or expired',
  '403': 'The token lacks the permission for this',
  '404': 'There is no such sheet for this token',
  '429': 'Too many requests; Retry-After says when to try again',
};

function operationOf({ id, says, about, scope, query, body, headers = {}, path, answer, example }: Endpoint): Json {
  const refused = { content: { 'application/json': { schema: { $ref: '#/components/schemas/Refused' } } } };
  const isConditional = 'If-None-Match' in headers;
  return {
    operationId: id,
    summary: says,
    ...(about === undefined ? {} : { description: about }),
    ...(scope === null ? {} : { 'x-scope': scope }),
    parameters: [
      ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
        name,
        in: 'path',
        required: true,
        description: 'The id of the sheet: what its address ends with',
        schema: { type: 'string' },
      })),
      ...(query ? queryParameters(query) : []),
      ...Object.entries(headers).map(([name, description]) => ({
        name,
        in: 'header',
        required: false,
        description,
        schema: { type: 'string' },
      })),
    ],
    ...(body
      ? {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: schemaOf(body), ...(example ? { example } : {}) } },
          },
        }
      : {}),
    responses: {
      [answer.status]: {
        description: answer.says,
        content: { [answer.type]: answer.schema ? { schema: schemaOf(answer.schema) } : {} },
      },
      ...(isConditional ? { '304': { description: 'Nothing has changed since the answer with this ETag' } } : {}),
      ...('If-Match' in headers ? { '412': { description: 'It has been changed since', ...refused } } : {}),
      ...Object.fromEntries(
        Object.entries(REFUSED).map(([status, description]) => [status, { description, ...refused }]),
      ),
    },
  };
}

function queryParameters(query: Joi.Schema): Json[] {
  const { properties = {}, required = [] } = schemaOf(query) as {
    readonly properties?: Readonly<Record<string, Json>>;
    readonly required?: readonly string[];
  };
  return Object.entries(properties).map(([name, { description, ...schema }]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    ...(description === undefined ? {} : { description }),
    schema,
  }));
}
