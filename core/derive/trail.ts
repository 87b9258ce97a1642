import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { type Derived, derivedOf } from './derived.ts';
import { labelOf } from './menu.ts';
import { rowOf } from './outline.ts';

/** One step of a trail. `address` is null for plain text: a heading, or a page that cannot be reached. */
export interface TrailStep {
  readonly page: PageId;
  readonly text: string;
  readonly address: string | null;
}

/**
 * The trail of a node: home, its ancestors from the top, the node itself. Home stands once. For a visitor, by what is
 * `derived` for them, pages that they cannot reach are not named.
 */
export function trailOf(site: Site, id: PageId, visitors?: Derived): TrailStep[] {
  const derived = visitors ?? derivedOf(site);
  const { outline, home } = derived;
  const isNamed = (row: number) => visitors === undefined || derived.hiddenBy[row] === -1;
  const steps: TrailStep[] = [];
  const step = (row: number): TrailStep => {
    const node = outline.nodes[row]!;
    return {
      page: node.id,
      text: labelOf(site, node),
      address: derived.hiddenBy[row] === -1 ? derived.addresses[row]! : null,
    };
  };
  for (let row = rowOf(outline, id); row !== -1; row = outline.parent[row]!) if (isNamed(row)) steps.push(step(row));
  steps.reverse();
  if (home !== null && !steps.some((one) => one.page === home) && isNamed(rowOf(outline, home)))
    steps.unshift(step(rowOf(outline, home)));
  return steps;
}
