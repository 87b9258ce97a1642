import { carrySlugs } from './slug-index.ts';
import { noteLiveStep } from './steps.ts';
import type { LiveNode, Settings, Site } from './site.ts';
import { bySiblingOrder, childrenOf } from './site.ts';
import type { PageId } from './ids.ts';
import type { SiteNode } from './node.ts';

/**
 * The site with these nodes in place of those of the same ids (or added), and the lists of children kept true.
 * Where every node is the one that is already there, the same site comes back.
 */
export function withNodes(site: Site, changed: readonly SiteNode[]): Site {
  let { nodes, children } = site;
  for (const node of changed) {
    const before = nodes.get(node.id);
    if (before === node) continue;
    nodes = nodes.set(node.id, node);
    const stood = before !== undefined && before.removedWith === null;
    const stands = node.removedWith === null;
    if (stood && stands && before.parent === node.parent && before.order === node.order) continue;
    if (stood) children = withoutChild(children, before);
    if (stands) children = withChild(children, nodes, node);
  }
  if (nodes === site.nodes) return site;
  carrySlugs(
    site.nodes,
    nodes,
    changed.map(({ id }) => id),
  );
  return { ...site, nodes, children };
}

/** The site without the node, as if it had never been. The node must have no children in the tree. */
export function withoutNode(site: Site, id: PageId): Site {
  const node = site.nodes.get(id);
  if (!node) return site;
  if (childrenOf(site, id).length > 0) {
    throw new Error(`Node '${id}' of site '${site.key}' has children; take those out first.`);
  }
  const nodes = site.nodes.delete(id);
  carrySlugs(site.nodes, nodes, [id]);
  return {
    ...site,
    nodes,
    children: node.removedWith === null ? withoutChild(site.children, node) : site.children,
  };
}

export const withSettings = (site: Site, settings: Settings): Site =>
  settings === site.settings ? site : { ...site, settings };

/** The site with these live states; `null` makes the node one that was never live. */
export function withLive(
  site: Site,
  changed: ReadonlyMap<PageId, LiveNode | null>,
  liveSettings: Settings | null,
): Site {
  const live = site.live.setAll(changed);
  noteLiveStep(live, site.live, [...changed.keys()]);
  return live === site.live && liveSettings === site.liveSettings ? site : { ...site, live, liveSettings };
}

type Children = Site['children'];

function withoutChild(children: Children, node: SiteNode): Children {
  const left = (children.get(node.parent) ?? []).filter((id) => id !== node.id);
  return left.length === 0 ? children.delete(node.parent) : children.set(node.parent, left);
}

function withChild(children: Children, nodes: Site['nodes'], node: SiteNode): Children {
  const siblings = children.get(node.parent) ?? [];
  let low = 0;
  let high = siblings.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (bySiblingOrder(nodes.get(siblings[middle]!)!, node) < 0) low = middle + 1;
    else high = middle;
  }
  return children.set(node.parent, [...siblings.slice(0, low), node.id, ...siblings.slice(low)]);
}
