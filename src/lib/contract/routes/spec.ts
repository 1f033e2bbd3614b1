import type Joi from 'joi';
import type { Role } from '../people';

/** One route of the API: what it is for and what it takes. The server's handlers and the OpenAPI document both read this table. */
export type RouteSpec = {
  method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  path: string;
  /** Who may ask: whoever has at least this role, or anyone who reaches Isle. In a project that is closed, of those named in it. */
  role: Role | 'anyone';
  summary: string;
  /** Anyone may ask where the studio has said so. */
  openable?: boolean;
  body?: Joi.ObjectSchema;
  query?: Joi.ObjectSchema;
  /** So often a minute one may ask it, where it costs much; who asks too often is told to wait. */
  perMinute?: number;
  /** Most bytes of the body; 20 MB where not said. */
  maxBytes?: number;
  /** The body is a file: its bytes as they are, its name in the header x-file-name (percent-encoded). */
  takesFile?: boolean;
  /** Media type of the answer where it is not JSON. */
  answers?: string;
};

/** A row of the table. */
export const spec = (
  method: RouteSpec['method'],
  path: string,
  role: RouteSpec['role'],
  summary: string,
  more: Partial<RouteSpec> = {},
): RouteSpec => ({ method, path, role, summary, ...more });
