import type { PageId } from './ids.ts';
import { type SiteNode, isSameNode } from './node.ts';
import { withNodes, withoutNode } from './site-edit.ts';
import type { Site } from './site.ts';

/**
 * A change in the making: the site before, the site so far, and which nodes were touched on the way. It lives for
 * one operation; the sites themselves are never changed in place.
 */
export class SiteChange {
  readonly before: Site;
  readonly #put = new Set<PageId>();
  #site: Site;

  constructor(before: Site) {
    this.before = before;
    this.#site = before;
  }

  get site(): Site {
    return this.#site;
  }

  /** The nodes that differ from the site before: one that has become as it was is not among them. */
  get touched(): ReadonlySet<PageId> {
    return new Set([...this.#put].filter((id) => this.#site.nodes.get(id) !== this.before.nodes.get(id)));
  }

  put(...nodes: SiteNode[]): void {
    const kept = nodes.map((node) => {
      const was = this.before.nodes.get(node.id);
      return was && isSameNode(was, node) ? was : node;
    });
    for (const node of kept) if (this.#site.nodes.get(node.id) !== node) this.#put.add(node.id);
    this.#site = withNodes(this.#site, kept);
  }

  takeOut(id: PageId): void {
    this.#put.add(id);
    this.#site = withoutNode(this.#site, id);
  }

  /** Replaces what is not nodes: settings and live states. */
  become(site: Site): void {
    this.#site = site;
  }
}
