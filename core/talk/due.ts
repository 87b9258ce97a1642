import type { PageId } from '../model/ids.ts';
import { sameName } from './concerned.ts';
import type { SiteNode } from '../model/node.ts';

/** A page is due soon when it is so many days away. */
export const SOON_DAYS = 7;
const DAY_MS = 24 * 3600 * 1000;

/** A page that is due soon, or was due, and is not ready. */
export interface DuePage {
  readonly page: PageId;
  /** The day, ISO 8601. */
  readonly due: string;
}

/**
 * What is due of the pages that name somebody as owner, the earliest first. @param nodes those that stand in the tree
 * @param today ISO 8601, a day
 */
export function dueFor(nodes: Iterable<SiteNode>, name: string, today: string): DuePage[] {
  const soon = new Date(Date.parse(today) + SOON_DAYS * DAY_MS).toISOString().slice(0, 10);
  const found: DuePage[] = [];
  for (const { id, plan } of nodes)
    if (plan?.due != null && plan.due <= soon && plan.readiness !== 'ready' && sameName(plan.owner, name))
      found.push({ page: id, due: plan.due });
  return found.sort((a, b) => (a.due < b.due ? -1 : a.due > b.due ? 1 : 0));
}
