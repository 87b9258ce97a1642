import { PAGE_FIELDS, valuesForGuests } from '../model/page-fields.ts';
import type { SiteNode } from '../model/node.ts';
import type { SketchId } from '../model/plan.ts';
import { sketchOf } from '../model/sketch.ts';
import { type Settings, type Site, makeSite, maybeNodeAt, newSettings } from '../model/site.ts';

/**
 * The site as those see it whom its plan is shared with: the tree with what is planned for each page. What was removed,
 * what was decided about the old site, and the planners' own notes, questions and references stay out; and so do audiences,
 * rules of access, labels, menus, layouts and facts: who may open what is no part of a plan. Pages that have the sketch of their kind
 * name it themselves here.
 */
export function sharedPlan(site: Site): Site {
  const used = new Set<SketchId>();
  const nodes = [...site.nodes.values()]
    .filter((node) => node.removedWith === null)
    .map((node): SiteNode => {
      const sketch = sketchOf(site, node)?.id;
      if (sketch === undefined) return valuesForGuests(node);
      used.add(sketch);
      return valuesForGuests({ ...node, plan: PAGE_FIELDS.plan.with(node.plan, { sketch }) });
    });
  const live = [...site.live.values()]
    .filter(({ node }) => maybeNodeAt(site, node.id))
    .map(({ node, retired }) => ({ node: valuesForGuests(node), retired }));
  return makeSite(
    site.key,
    plainSettings(site.settings),
    nodes,
    live,
    site.liveSettings && plainSettings(site.liveSettings),
    {
      goals: site.goals,
      boards: site.boards,
      sketches: site.sketches.filter(({ id }) => used.has(id)).map((sketch) => ({ ...sketch, kinds: [] })),
    },
  );
}

const plainSettings = ({ name, language, home, trail }: Settings): Settings => ({
  ...newSettings(name, language),
  home,
  menus: [],
  facts: [],
  trail,
});
