import { derivedOf, haveSameAddresses } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import { type Aspect, nodeDifferences } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import { settingsDifferences } from './waiting-settings.ts';

const OF_ITS_TEXT: ReadonlySet<Aspect> = new Set(['text', 'description', 'searchTitle']);

/**
 * The pages that can look otherwise after a release which changed nothing but texts and descriptions: these, those above them, which
 * list what is below, and those that list the whole site. Null where more than that has changed: then any page can.
 * @param before @param after the site as visitors have it
 */
export function affectedPages(before: Site, after: Site): ReadonlySet<PageId> | null {
  const [was, is] = [derivedOf(before), derivedOf(after)];
  if (!haveSameAddresses(was, is) || was.hiddenBy !== is.hiddenBy || was.home !== is.home) return null;
  if (settingsDifferences(before.settings, after.settings).length > 0) return null;
  const affected = new Set<PageId>();
  const { nodes, parent } = is.outline;
  for (let row = 0; row < nodes.length; row++) {
    const node = nodes[row]!;
    if (node.frame?.listing?.look === 'sitemap') affected.add(node.id);
    const old = was.outline.nodes[row]!;
    if (old === node) continue;
    const isText = nodeDifferences(old, node).every((aspect) => OF_ITS_TEXT.has(aspect));
    // What stands in for signing in and the like is shown at other addresses too.
    if (!isText || (node.access?.standsIn ?? null) !== null) return null;
    for (let up = row; up !== -1; up = parent[up]!) affected.add(nodes[up]!.id);
  }
  return affected;
}
