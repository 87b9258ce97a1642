import { pagesNamed } from '../derive/named-by.ts';
import { fieldsFor } from '../fields/values.ts';
import { ruleOf } from '../model/access.ts';
import { derivedOf, haveSameAddresses } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import { type Aspect, nodeDifferences } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import { settingsDifferences } from './waiting-settings.ts';

const OF_ITS_TEXT: ReadonlySet<Aspect> = new Set(['text', 'description', 'searchTitle', 'details']);

/**
 * The pages that can look otherwise after a release which changed nothing but texts, descriptions and fields: these, those above them,
 * which list what is below, those that they name in their fields or no longer name, and those that list the whole site. Lists within
 * texts are not looked at: whoever has shown them knows of these. Null where more than that has changed: then any page can.
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
    if (old.details !== node.details)
      for (const { access, details } of [old, node])
        for (const field of fieldsFor(ruleOf({ access }).labels, after.settings.labels))
          for (const named of pagesNamed(field, details?.[field.id])) affected.add(named);
  }
  return affected;
}
