import { type AccessTable, type Finder, accessTable, heldBackRows, membershipsOf } from '#core/derive/access.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { type AudienceId, EVERYONE } from '#core/model/audience.ts';
import type { Site } from '#core/model/site.ts';

export interface SiteAccess {
  readonly table: AccessTable;
  /** The row whose rule holds each row back from a finder, or -1. */
  readonly heldBack: Readonly<Record<Finder, Int32Array>>;
}

const known = new WeakMap<Site, Map<number | null, SiteAccess>>();

/** So many moments of a site are remembered. */
const MOST_MOMENTS = 8;

/** Who may open each page of a site at a moment; null for now, worked out again when the clock opens or closes one. */
export function accessOf(site: Site, moment: number | null = null): SiteAccess {
  const moments = known.get(site) ?? new Map<number | null, SiteAccess>();
  known.set(site, moments);
  const before = moments.get(moment);
  if (before && (moment !== null || before.table.until > Date.now())) return before;
  const { outline } = derivedOf(site);
  const table = accessTable(outline, site.settings, membershipsOf(site.settings.audiences), moment ?? Date.now());
  const { heldBack } = before ??
    moments.values().next().value ?? {
      heldBack: { engines: heldBackRows(outline, site.settings, 'engines'), search: heldBackRows(outline, site.settings, 'search') },
    };
  const made = { table, heldBack };
  if (moments.size >= MOST_MOMENTS) moments.clear();
  moments.set(moment, made);
  return made;
}

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
  asks: 'Passphrase',
  locked: 'Locked',
  closed: 'Closed',
};
export const ANSWER_LOOKS: Readonly<Record<Answer, string>> = {
  open: 'text-accent',
  asks: 'text-attention',
  locked: 'text-attention',
  closed: 'text-quiet',
};
