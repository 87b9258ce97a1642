import { type GoalId, READINESS, openQuestions, planOf } from '../model/plan.ts';
import type { Site } from '../model/site.ts';
import type { Outline } from './outline.ts';

/** What the plans of a branch come to, row by row of the outline: each row with all below it. Only pages are counted. */
export interface PlanTotals {
  readonly pages: Int32Array;
  /** How many pages there are of each readiness, in the order of `READINESS`: row × 4 and on. */
  readonly readiness: Int32Array;
  /** Questions that wait for an answer. */
  readonly questions: Int32Array;
  /** The earliest day by which a page that is not ready is due, or null. */
  readonly due: readonly (string | null)[];
  /** How many words are expected. */
  readonly words: Float64Array;
}

const known = new WeakMap<Outline['nodes'], PlanTotals>();

/** The totals of every row; the same object again while no node has changed. One pass from the last row up. */
export function planTotalsOf({ nodes, parent }: Outline): PlanTotals {
  let totals = known.get(nodes);
  if (totals) return totals;
  const count = nodes.length;
  const pages = new Int32Array(count);
  const readiness = new Int32Array(count * READINESS.length);
  const questions = new Int32Array(count);
  const words = new Float64Array(count);
  const due: (string | null)[] = new Array<string | null>(count).fill(null);
  for (let row = count - 1; row >= 0; row--) {
    const node = nodes[row]!;
    const plan = planOf(node);
    if (node.type === 'page') {
      pages[row]!++;
      readiness[row * READINESS.length + READINESS.indexOf(plan.readiness)]!++;
      words[row]! += plan.words ?? 0;
      if (plan.readiness !== 'ready') due[row] = earlier(due[row]!, plan.due);
    }
    questions[row]! += openQuestions(plan);
    const above = parent[row]!;
    if (above === -1) continue;
    pages[above]! += pages[row]!;
    words[above]! += words[row]!;
    questions[above]! += questions[row]!;
    due[above] = earlier(due[above]!, due[row]!);
    for (let at = 0; at < READINESS.length; at++)
      readiness[above * READINESS.length + at]! += readiness[row * READINESS.length + at]!;
  }
  totals = { pages, readiness, questions, due, words };
  known.set(nodes, totals);
  return totals;
}

const earlier = (a: string | null, b: string | null): string | null =>
  a === null ? b : b === null ? a : a < b ? a : b;

/** How many pages serve each goal, and how many pages serve none. Goals that the site does not have count for nothing. */
export interface GoalsServed {
  readonly pages: ReadonlyMap<GoalId, number>;
  readonly servingNone: number;
}

export function goalsServed(site: Site, { nodes }: Outline): GoalsServed {
  const pages = new Map<GoalId, number>(site.goals.map((goal) => [goal.id, 0]));
  let servingNone = 0;
  for (const node of nodes) {
    if (node.type !== 'page') continue;
    const served = planOf(node).goals.filter((goal) => pages.has(goal));
    for (const goal of served) pages.set(goal, pages.get(goal)! + 1);
    if (served.length === 0) servingNone++;
  }
  return { pages, servingNone };
}
