import { z } from 'zod';
import type { Permission } from '#core/model/permission.ts';

/** A route of the API: where it is, who may use it, and what passes. */
export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** With Express's parameters; `:site` is a site's key, `:page` a page's id. */
  readonly path: string;
  /**
   * What the caller's role on the site must allow. `open` asks for no account, `link` for the secret of a link instead of one, `account`
   * for any account, and `installation` for one that looks after the installation.
   */
  readonly permission: Permission | 'open' | 'link' | 'account' | 'installation';
  /**
   * Where a permission must be held: on the whole site; at the page that the path names; or somewhere, where what is asked for says the rest
   * (an edit is decided operation by operation). On the whole site where it is left out.
   */
  readonly where?: 'site' | 'page' | 'somewhere';
  readonly summary: string;
  /** What is exported by it, after "exported": the log of security says so. */
  readonly exports?: string;
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
