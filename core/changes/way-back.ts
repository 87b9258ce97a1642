import { canonicalJson } from '../model/canonical-json.ts';
import { isSameNode } from '../model/node.ts';
import type { Refusal } from '../model/refusal.ts';
import type { Site } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { PAGE_FIELD_NAMES, type PageChanges, pageField } from '../model/page-fields.ts';
import { NO_TEXTS } from '../model/texts.ts';
import type { PageId } from '../model/ids.ts';

/** An edit of the log. `wentBackTo`: it made the draft what it was at that revision. */
export interface LoggedEdit {
  readonly revision: number;
  readonly operations: readonly Operation[];
  readonly inverse: readonly Operation[];
  readonly wentBackTo: number | null;
}

/** What a release does is no part of the draft. */
const isOfDraft = ({ name }: Operation): boolean => name !== 'release.make' && name !== 'release.takeBack';

/**
 * The operations that make the draft of the last revision what it was at an earlier one, as few as the log knows: back
 * by the inverses of edits, and from an edit that went back on by what was done after the tree that it went back to.
 * @param edits in order, each revision after the one before, up to the last @param asked the revision to go to
 * @throws RangeError where the log does not reach that far
 */
function wayBack(edits: readonly LoggedEdit[], asked: number): Operation[] {
  const [first] = edits;
  if (!first) return [];
  const start = first.revision - 1;
  if (asked < start) throw new RangeError(`The log begins after revision ${start}; load it from revision ${asked} on.`);
  const steps: Step[][] = Array.from({ length: edits.length + 1 }, () => []);
  for (const { revision, operations, inverse, wentBackTo } of edits) {
    const [before, after] = [revision - 1 - start, revision - start];
    steps[after]!.push({ to: before, by: inverse.filter(isOfDraft) });
    steps[before]!.push({ to: after, by: operations.filter(isOfDraft) });
    if (wentBackTo === null || wentBackTo < start) continue;
    steps[after]!.push({ to: wentBackTo - start, by: [] });
    steps[wentBackTo - start]!.push({ to: after, by: [] });
  }
  return shortestWay(steps, edits.length, asked - start);
}

interface Step {
  readonly to: number;
  readonly by: readonly Operation[];
}

/** Dijkstra's shortest path, with a bucket for each distance (Dial 1969): distances are counts of operations. */
function shortestWay(steps: readonly (readonly Step[])[], from: number, to: number): Operation[] {
  const distances = new Array<number>(steps.length).fill(Infinity);
  const cameBy = new Array<{ readonly from: number; readonly by: readonly Operation[] } | null>(steps.length).fill(
    null,
  );
  const buckets: number[][] = [[from]];
  distances[from] = 0;
  for (let distance = 0; distance < buckets.length; distance++) {
    // A step without operations puts its end into the bucket that is being emptied.
    for (const at of buckets[distance] ?? []) {
      if (distances[at] !== distance) continue;
      if (at === to) return wayTo(cameBy, to);
      for (const { to: next, by } of steps[at]!) {
        const reached = distance + by.length;
        if (reached >= distances[next]!) continue;
        distances[next] = reached;
        cameBy[next] = { from: at, by };
        (buckets[reached] ??= []).push(next);
      }
    }
  }
  throw new RangeError('The revisions are not connected; pass every edit between them.');
}

function wayTo(
  cameBy: readonly ({ readonly from: number; readonly by: readonly Operation[] } | null)[],
  to: number,
): Operation[] {
  const way: (readonly Operation[])[] = [];
  for (let step = cameBy[to]; step; step = cameBy[step.from]) way.push(step.by);
  return way.reverse().flat();
}

/**
 * The edit that makes a site's draft what it was at an earlier revision: the way back, without what a later step of it
 * overrules and without what changes nothing. Empty where nothing is to go back. What is live stays as it is.
 * @param edits as for `wayBack` @returns the operations, or the rule that forbids one of them on the site as it is
 */
export function editBack(site: Site, edits: readonly LoggedEdit[], asked: number): readonly Operation[] | Refusal {
  const way = wayBack(edits, asked);
  const whole = applied(site, way);
  if (!('made' in whole)) return whole;
  if (isSameDraft(site, whole.site)) return [];
  const short = applied(site, withoutOverruled(whole.made));
  return 'made' in short && isSameDraft(short.site, whole.site) ? short.made : whole.made;
}

/** Operations without fields that are set again later on, and without moves of pages that are moved again. */
function withoutOverruled(operations: readonly Operation[]): Operation[] {
  const later = new Set<string>();
  return operations
    .toReversed()
    .flatMap((operation): Operation[] => {
      if (operation.name === 'page.set') {
        const fields = fieldsNotSet(operation.page, operation.fields, later);
        return Object.keys(fields).length > 0 ? [{ ...operation, fields }] : [];
      }
      if (operation.name !== 'page.move') return [operation];
      const key = `${operation.page} place`;
      const isOverruled = later.has(key);
      later.add(key);
      return isOverruled ? [] : [operation];
    })
    .reverse();
}

/** The fields that are not set later on; those that are set part by part, or language by language, all stay. */
function fieldsNotSet(page: PageId, fields: PageChanges, later: Set<string>): PageChanges {
  return Object.fromEntries(
    PAGE_FIELD_NAMES.flatMap((name) => {
      if (fields[name] === undefined) return [];
      const key = [page, name, ...Object.keys(pageField(name).none === NO_TEXTS ? fields[name]! : {})].join(' ');
      if (!pageField(name).partsOf && later.has(key)) return [];
      later.add(key);
      return [[name, fields[name]]];
    }),
  );
}

/** The site after operations, and those of them that changed something. */
function applied(site: Site, operations: readonly Operation[]): { site: Site; made: Operation[] } | Refusal {
  const made: Operation[] = [];
  let at = site;
  for (const operation of operations) {
    const outcome = applyOperation(at, operation);
    if (!outcome.ok) return outcome;
    if (outcome.site !== at) made.push(operation);
    at = outcome.site;
  }
  return { site: at, made };
}

function isSameDraft(a: Site, b: Site): boolean {
  const others = ({ settings, goals, sketches, boards, practice, oldPages }: Site) =>
    canonicalJson([settings, goals, sketches, boards, practice, [...oldPages]]);
  return (
    a.nodes.size === b.nodes.size &&
    a.nodes.every((node, id) => {
      const other = b.nodes.get(id);
      return other !== undefined && isSameNode(node, other);
    }) &&
    others(a) === others(b)
  );
}
