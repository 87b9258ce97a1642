import { withPlan } from '../model/plan.ts';
import { type Site, makeSite, maybeNodeAt } from '../model/site.ts';

/**
 * The site as those see it whom its plan is shared with: the tree with what is planned for each page. What was removed,
 * what was decided about the old site, and the planners' own notes, questions and references stay out.
 */
export function sharedPlan(site: Site): Site {
  const nodes = [...site.nodes.values()]
    .filter((node) => node.removedWith === null)
    .map((node) => {
      if (node.plan === null) return node;
      const questions = Object.fromEntries(Object.keys(node.plan.questions).map((id) => [id, null]));
      return { ...node, plan: withPlan(node.plan, { notes: null, references: [], questions }) };
    });
  const live = [...site.live.values()].filter(({ node }) => maybeNodeAt(site, node.id));
  return makeSite(site.key, site.settings, nodes, live, site.liveSettings, { goals: site.goals });
}
