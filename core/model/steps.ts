import type { PageId } from './ids.ts';
import type { Site } from './site.ts';

interface Step {
  /** Held weakly: a site does not keep all that came before it. */
  readonly before: WeakRef<Site>;
  readonly touched: readonly PageId[];
}
const steps = new WeakMap<Site, Step>();

/** Remembers that a site was made of another one, and which nodes differ: what was derived need not be derived anew. */
export function noteStep(after: Site, before: Site, touched: readonly PageId[]): void {
  if (after !== before) steps.set(after, { before: new WeakRef(before), touched });
}

/** The site that this one was made of, while it is there still, with the nodes in which the two may differ. */
export function stepTo(site: Site): { readonly before: Site; readonly touched: readonly PageId[] } | null {
  const step = steps.get(site);
  const before = step?.before.deref();
  return step && before ? { before, touched: step.touched } : null;
}

/**
 * The nearest site before this one of which something is known, going back step by step, with all nodes in which the two may differ.
 * Null where there is none within `mostSteps`, or where more than `mostTouched` nodes differ.
 */
export function knownBefore<Known>(
  site: Site,
  knownOf: (before: Site) => Known | undefined,
  { mostSteps, mostTouched = Infinity }: { readonly mostSteps: number; readonly mostTouched?: number },
): { readonly before: Site; readonly known: Known; readonly touched: ReadonlySet<PageId> } | null {
  const touched = new Set<PageId>();
  let before = site;
  for (let steps = 0; steps < mostSteps; steps++) {
    const step = stepTo(before);
    if (!step) return null;
    for (const id of step.touched) touched.add(id);
    if (touched.size > mostTouched) return null;
    before = step.before;
    const known = knownOf(before);
    if (known !== undefined) return { before, known, touched };
  }
  return null;
}

type Live = Site['live'];
const liveSteps = new WeakMap<Live, { readonly before: WeakRef<Live>; readonly changed: readonly PageId[] }>();

/** Remembers that the live states of a site were made of others, and which differ. */
export function noteLiveStep(after: Live, before: Live, changed: readonly PageId[]): void {
  if (after !== before) liveSteps.set(after, { before: new WeakRef(before), changed });
}

/** The live states that these were made of, while they are there still, with the nodes whose states may differ. */
export function liveStepTo(live: Live): { readonly before: Live; readonly changed: readonly PageId[] } | null {
  const step = liveSteps.get(live);
  const before = step?.before.deref();
  return step && before ? { before, changed: step.changed } : null;
}
