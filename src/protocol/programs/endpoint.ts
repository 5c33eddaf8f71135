import type Joi from 'joi';
import type { Scope } from './scopes';

/** One thing that programs can ask: what the routes check requests by, and what the OpenAPI document is made of. */
export interface Endpoint {
  readonly id: string;
  readonly method: 'get' | 'put' | 'post';
  /** From /api/v1 on; what is in braces is a part of the path. */
  readonly path: string;
  readonly says: string;
  /** More about it, in whole sentences. */
  readonly about?: string;
  /** What the token must be good for; null for any token. */
  readonly scope: Scope | null;
  readonly query?: Joi.Schema;
  readonly body?: Joi.Schema;
  /** Request headers that count, and what for. */
  readonly headers?: Readonly<Record<string, string>>;
  readonly answer: { readonly status: 200; readonly says: string; readonly type: string; readonly schema?: Joi.Schema };
  /** A body that works with the demo. */
  readonly example?: object;
}
