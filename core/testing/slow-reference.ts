import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import type { Menu } from '../model/menu.ts';
import { type Site, childrenOf, homeOf, nodeAt } from '../model/site.ts';

/**
 * What follows from a site, written out plainly: each answer is found for its node alone, by walking up the tree.
 * The fast derivation is held against this.
 */
export class SlowReference {
  readonly #site: Site;

  constructor(site: Site) {
    this.#site = site;
  }

  /** From the node itself to the top. */
  #upwards(id: PageId): SiteNode[] {
    const node = nodeAt(this.#site, id);
    return node.parent === null ? [node] : [node, ...this.#upwards(node.parent)];
  }

  inTreeOrder(parent: PageId | null = null): PageId[] {
    return childrenOf(this.#site, parent).flatMap((id) => [id, ...this.inTreeOrder(id)]);
  }

  address(id: PageId): string | null {
    const home = homeOf(this.#site);
    if (nodeAt(this.#site, id).type !== 'page') return null;
    if (id === home) return '/';
    const steps: string[] = [];
    for (const node of this.#upwards(id)) {
      if (node.id === home) break;
      const counts = node.type === 'page' || (node.type === 'heading' && node.inAddress);
      if (counts) steps.unshift((node.slug[this.#site.settings.language] ?? Object.values(node.slug)[0])!.text);
    }
    return `/${steps.join('/')}`;
  }

  /** The node that decides that nobody can reach this one, or null. */
  hiddenBy(id: PageId): PageId | null {
    const [node, ...above] = this.#upwards(id);
    const branch = [...above].reverse().find((one) => one.hidden === 'branch');
    if (branch) return branch.id;
    return node!.hidden === 'no' ? null : node!.id;
  }

  /** A menu that follows the tree without exceptions: the ids of its entries, nested. `section` is the top-level node that it is for. */
  menu({ root, levels, withRoot }: Menu, section: PageId | null): { id: string; below: unknown[] }[] {
    const below = (parent: PageId | null, left: number): { id: string; below: unknown[] }[] =>
      left === 0
        ? []
        : childrenOf(this.#site, parent)
            .filter((id) => this.#isOffered(id))
            .map((id) => ({ id, below: below(id, left - 1) }));
    const top = root === 'site' ? null : root === 'section' ? section : root.page;
    if (root === 'site') return below(null, levels);
    if (top === null || this.#site.nodes.get(top)?.removedWith !== null || this.hiddenBy(top) !== null) return [];
    return withRoot ? [{ id: top, below: below(top, levels) }] : below(top, levels);
  }

  #isOffered(id: PageId): boolean {
    const { inMenus, access, target } = nodeAt(this.#site, id);
    if (!inMenus || access?.standsIn === 'not-found' || access?.standsIn === 'no-access' || this.hiddenBy(id) !== null)
      return false;
    if (!target || !('page' in target)) return true;
    const to = this.#site.nodes.get(target.page);
    return to?.removedWith === null && to.type === 'page' && this.hiddenBy(target.page) === null;
  }

  state(id: PageId): string {
    const entry = this.#site.live.get(id);
    if (!entry) return 'draft';
    if (entry.retired) return 'retired';
    return JSON.stringify(sorted(entry.node)) === JSON.stringify(sorted({ ...nodeAt(this.#site, id), plan: null }))
      ? 'live'
      : 'edited';
  }

  /** The ids of the trail: home first, then the way down. */
  trail(id: PageId): PageId[] {
    const way = this.#upwards(id)
      .reverse()
      .map((node) => node.id);
    const home = homeOf(this.#site);
    return home === null || way.includes(home) ? way : [home, ...way];
  }
}

function sorted(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value;
  return Object.entries(value)
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .map(([key, part]) => [key, sorted(part)]);
}
