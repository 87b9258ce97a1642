import type { PageId } from './ids.ts';
import type { SiteNode } from './node.ts';
import { withNodes, withoutNode } from './site-edit.ts';
import type { Site } from './site.ts';

/**
 * A change in the making: the site before, the site so far, and which nodes were touched on the way. It lives for
 * one operation; the sites themselves are never changed in place.
 */
export class SiteChange {
  readonly before: Site;
  readonly touched = new Set<PageId>();
  #site: Site;

  constructor(before: Site) {
    this.before = before;
    this.#site = before;
  }

  get site(): Site {
    return this.#site;
  }

  put(...nodes: SiteNode[]): void {
    for (const node of nodes) if (this.#site.nodes.get(node.id) !== node) this.touched.add(node.id);
    this.#site = withNodes(this.#site, nodes);
  }

  takeOut(id: PageId): void {
    this.touched.add(id);
    this.#site = withoutNode(this.#site, id);
  }

  /** Replaces what is not nodes: settings and live states. */
  become(site: Site): void {
    this.#site = site;
  }
}
