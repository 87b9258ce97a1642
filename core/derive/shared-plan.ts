import { valuesForGuests } from '../model/page-fields.ts';
import { type Settings, type Site, makeSite, maybeNodeAt, newSettings } from '../model/site.ts';

/**
 * The site as those see it whom its plan is shared with: the tree with what is planned for each page. What was removed,
 * what was decided about the old site, and the planners' own notes, questions and references stay out; and so do audiences,
 * rules of access, labels, menus, layouts and facts: who may open what is no part of a plan.
 */
export function sharedPlan(site: Site): Site {
  const nodes = [...site.nodes.values()].filter((node) => node.removedWith === null).map(valuesForGuests);
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
