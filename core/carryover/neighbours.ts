import type { PreparedPage } from './prepare-pages.ts';
import type { Pair } from './candidates.ts';

/** A group of more pages than this says little about which of them a page is. */
const MAX_LEFT = 12;

/**
 * Which groups of old pages (a folder, a script) became which groups of planned ones, as the pairs that are known have
 * it: pages that are left over there belong together more likely than others.
 */
export class Neighbours {
  /** How many known pairs there are by the group of the old page and that of the planned one. */
  readonly #together = new Map<string, Map<string, number>>();
  readonly #ofOld = new Map<string, number>();
  readonly #ofPlanned = new Map<string, number>();
  readonly #old: readonly (readonly string[])[];
  readonly #planned: readonly (readonly string[])[];

  constructor(old: readonly PreparedPage[], planned: readonly PreparedPage[], known: readonly Pair[]) {
    this.#old = old.map(groupsOf);
    this.#planned = planned.map(groupsOf);
    const add = (counts: Map<string, number>, key: string) => counts.set(key, (counts.get(key) ?? 0) + 1);
    for (const [a, b] of known) {
      const from = old[a]!.group;
      const became = this.#together.get(from) ?? new Map<string, number>();
      this.#together.set(from, add(became, planned[b]!.group));
      add(this.#ofOld, from);
      add(this.#ofPlanned, planned[b]!.group);
    }
  }

  /**
   * From 0, where nothing is known of the groups of two pages, to 1, where each became the other. The front of a group
   * counts as one of its pages.
   */
  share([a, b]: Pair): number {
    let most = 0;
    for (const from of this.#old[a]!) {
      const became = this.#together.get(from);
      if (!became) continue;
      for (const to of this.#planned[b]!) {
        const both = became.get(to);
        // One more on each side, so that a single pair is no proof.
        if (both) most = Math.max(most, (2 * both) / (this.#ofOld.get(from)! + this.#ofPlanned.get(to)! + 2));
      }
    }
    return most;
  }

  /** The pairs of pages that are left over in groups that became each other. */
  leftOver(takenOld: ReadonlySet<number>, takenPlanned: ReadonlySet<number>): Pair[] {
    const old = leftByGroup(this.#old, takenOld);
    const planned = leftByGroup(this.#planned, takenPlanned);
    const pairs: Pair[] = [];
    for (const [from, became] of this.#together) {
      const here = old.get(from) ?? [];
      if (here.length > MAX_LEFT) continue;
      for (const to of became.keys()) {
        const there = planned.get(to) ?? [];
        if (there.length > MAX_LEFT) continue;
        for (const a of here) for (const b of there) pairs.push([a, b]);
      }
    }
    return pairs;
  }
}

function leftByGroup(pages: readonly (readonly string[])[], taken: ReadonlySet<number>): Map<string, number[]> {
  const groups = new Map<string, number[]>();
  pages.forEach((ofPage, at) => {
    if (taken.has(at)) return;
    for (const group of ofPage) {
      const members = groups.get(group);
      if (members) members.push(at);
      else groups.set(group, [at]);
    }
  });
  return groups;
}

/** The group that a page stands in, and the one that it is the front of. */
const groupsOf = ({ group, front }: PreparedPage): readonly string[] =>
  front === null || front === group ? [group] : [group, front];
