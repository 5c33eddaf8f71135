import type Joi from 'joi';
import type { Scope } from './scopes';

/** A request that programs can make: routes check requests by it, and the OpenAPI document is made of it. */
export interface Endpoint {
  readonly id: string;
  readonly method: 'get' | 'put' | 'post';
  /** From /api/v1 on; what is in braces is a part of the path. */
  readonly path: string;
  readonly says: string;
  /** More about it, in whole sentences. */
  readonly about?: string;
  /** The scope that the token needs; null for any token. */
  readonly scope: Scope | null;
  readonly query?: Joi.Schema;
  readonly body?: Joi.Schema;
  /** Request headers that count, and what for. */
  readonly headers?: Readonly<Record<string, string>>;
  readonly answer: { readonly status: 200; readonly says: string; readonly type: string; readonly schema?: Joi.Schema };
  /** A body that works with the demo. */
  readonly example?: object;
}
