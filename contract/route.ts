import { z } from 'zod';
import type { Permission } from './api.ts';

/** A route of the API: where it is, who may use it, and what passes. */
export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** With Express's parameters; `:site` is a site's key, `:page` a page's id. */
  readonly path: string;
  /** What the caller's role must allow. `open` asks for no account, `link` for the secret of a link instead of one. */
  readonly permission: Permission | 'open' | 'link';
  readonly summary: string;
  readonly body?: z.ZodType;
  /** The media type of a body that is a file, and is read piece by piece while it comes. */
  readonly takes?: string;
  readonly answer?: z.ZodType;
  /** The answer's media type, where it is not JSON. */
  readonly sends?: string;
  /** The largest body in bytes, where it is not the usual one. */
  readonly largest?: number;
}

/** The answer of a route that has nothing to tell. */
export const okAnswer = z.object({ ok: z.literal(true) });
