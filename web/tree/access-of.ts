import {
  type AccessTable,
  type Finder,
  type Membership,
  accessTable,
  accessTableAfter,
  heldBackRows,
  membershipsOf,
} from '#core/derive/access.ts';
import { type AudienceSign, audienceSigns, passing } from '#core/derive/audience-signs.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { type AudienceId, EVERYONE } from '#core/model/audience.ts';
import type { Site } from '#core/model/site.ts';
import { stepTo } from '#core/model/steps.ts';

export interface SiteAccess {
  readonly table: AccessTable;
  /** The row whose rule holds each row back from a finder, or -1. */
  readonly heldBack: Readonly<Record<Finder, Int32Array>>;
}

const known = new WeakMap<Site, Map<number | null, SiteAccess>>();

/** So many moments of a site are remembered. */
const MAX_MOMENTS = 8;

/** Who may open each page of a site at a moment; null for now, worked out again when the clock opens or closes one. */
export function accessOf(site: Site, moment: number | null = null): SiteAccess {
  const moments = known.get(site) ?? new Map<number | null, SiteAccess>();
  known.set(site, moments);
  const before = moments.get(moment);
  if (before && (moment !== null || before.table.until > Date.now())) return before;
  const { outline } = derivedOf(site);
  const memberships = membershipsOf(site.settings.audiences);
  const table =
    fromBefore(site, moment, memberships) ?? accessTable(outline, site.settings, memberships, moment ?? Date.now());
  const { heldBack } = before ?? moments.values().next().value ?? { heldBack: heldBackIn(site) };
  const made = { table, heldBack };
  if (moments.size >= MAX_MOMENTS) moments.clear();
  moments.set(moment, made);
  return made;
}

/** What is held back in a site, worked out where it is asked for. */
function heldBackIn(site: Site): SiteAccess['heldBack'] {
  const rows = (finder: Finder) => heldBackRows(derivedOf(site).outline, site.settings, finder);
  let engines: Int32Array | undefined;
  let search: Int32Array | undefined;
  return {
    get engines() {
      return (engines ??= rows('engines'));
    },
    get search() {
      return (search ??= rows('search'));
    },
  };
}

/** The table made of that of the site before an edit, where the edit left the tree and the audiences as they were; null where it cannot be. */
function fromBefore(site: Site, moment: number | null, memberships: readonly Membership[]): AccessTable | null {
  const step = stepTo(site);
  const before = step && known.get(step.before)?.get(moment)?.table;
  if (!before || step.before.children !== site.children || step.before.settings !== site.settings) return null;
  const at = moment ?? Date.now();
  if (before.until <= at) return null;
  const { outline } = derivedOf(site);
  const changed = [...step.touched].flatMap((id) => outline.rowOf.get(id) ?? []);
  return accessTableAfter(before, outline, site.settings, memberships, at, changed);
}

/** Who passes at a row, as signs; null where everyone does, or nobody. Where a site has no audiences nothing is worked out. */
export function passingOf(site: Site, moment: number | null): (row: number) => readonly AudienceSign[] | null {
  if (site.settings.audiences.length === 0) return () => null;
  const signs = audienceSigns(site.settings.audiences);
  const { table } = accessOf(site, moment);
  return (row) => passing(table, signs, row);
}

/** The tint of what stands right below a row: of the first audience that passes; -1 where everyone does, or nobody. */
export const tintOfBranch = (passes: ReturnType<typeof passingOf>, row: number): number => passes(row)?.[0]?.tint ?? -1;

/** The colour of a rail: of the audience that passes, or ink. */
export const railColor = (tint: number): string => (tint === -1 ? 'var(--ink)' : `var(--tint-${tint})`);

/** `everyone` and the audiences of the site, as they are named. */
export const audiencesOf = (site: Site): { readonly id: AudienceId; readonly name: string }[] => [
  { id: EVERYONE, name: 'Everyone' },
  ...site.settings.audiences,
];

export type Answer = 'open' | 'asks' | 'locked' | 'closed';
/** What a visitor of the audience at place `bit` gets of a row. */
export function answerAt({ open, asks, locked }: AccessTable, row: number, bit: number): Answer {
  const has = (bits: Uint32Array) => ((bits[row]! >>> bit) & 1) === 1;
  return has(open) ? 'open' : has(asks) ? 'asks' : has(locked) ? 'locked' : 'closed';
}

export const ANSWER_WORDS: Readonly<Record<Answer, string>> = {
  open: 'Opens',
  asks: 'Asks',
  locked: 'Locked',
  closed: 'Closed',
};
export const ANSWER_LOOKS: Readonly<Record<Answer, string>> = {
  open: 'text-accent',
  asks: 'text-attention',
  locked: 'text-attention',
  closed: 'text-quiet',
};
