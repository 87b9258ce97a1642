import { constants, gzipSync } from 'node:zlib';
import type { Request, Response } from 'express';
import type { SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { sendTree } from '#contract/sent-tree.ts';
import type { LoadedSite } from './site-repository.ts';

/** So many trees are kept; the one that was packed longest ago makes room. */
const MAX_TREES = 100;

/** Trees packed for the browser, compressed once for each revision. */
export class PackedTrees {
  readonly #packed = new Map<SiteKey, { readonly revision: number; readonly body: Buffer }>();

  /**
   * Sends the site as `seen` shows it, or that it is as the browser has it. Gives the answer to be sent where the
   * caller takes no compressed one.
   */
  send(
    request: Request,
    response: Response,
    { site, revision }: LoadedSite,
    seen: (site: Site) => Site = (all) => all,
  ): unknown {
    const tag = `"${revision}"`;
    response.set({ ETag: tag, 'Cache-Control': 'private, no-cache', Vary: 'Accept-Encoding' });
    if (request.get('if-none-match') === tag) return void response.status(304).end();
    if (!/\bgzip\b/.test(request.get('accept-encoding') ?? '')) return sendTree(seen(site), revision);
    let packed = this.#packed.get(site.key);
    if (packed?.revision !== revision) {
      const json = JSON.stringify(sendTree(seen(site), revision));
      packed = { revision, body: gzipSync(json, { level: constants.Z_BEST_SPEED + 3 }) };
      this.#packed.delete(site.key);
      this.#packed.set(site.key, packed);
      const [oldest] = this.#packed.keys();
      if (this.#packed.size > MAX_TREES) this.#packed.delete(oldest!);
    }
    response.set({ 'Content-Encoding': 'gzip', 'Content-Type': 'application/json; charset=utf-8' }).end(packed.body);
  }
}
