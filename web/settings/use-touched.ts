import { useMemo } from 'react';
import type { Derived } from '#core/derive/derived.ts';
import type { Touched } from '#core/derive/touched.ts';
import { type Found, withContext } from '#core/derive/visible-rows.ts';
import type { FactId } from '#core/model/fact.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { useFactUses } from '../api/find.ts';
import { SETTINGS } from './all-settings.ts';
import type { Beside } from './settings-keys.ts';
import type { Listed } from './settings-kind.ts';
import { wordsOfTouched } from './through-words.ts';

/** The setting that is open beside the tree, with what it touches. */
export interface OpenSetting {
  readonly item: Listed;
  /** Null where that is not known yet. */
  readonly touched: Touched | null;
  /** Why, page by page. */
  readonly words: ReadonlyMap<PageId, string>;
}

const NO_WORDS: ReadonlyMap<PageId, string> = new Map();

/** The setting that stands beside the tree; null where there is none. */
export function useOpenSetting(
  site: Site,
  derived: Derived,
  beside: Beside | null,
  revision: number,
): OpenSetting | null {
  const open = beside && SETTINGS[beside.kind];
  const kind = open && 'Fields' in open ? open : null;
  const id = beside?.id ?? null;
  const factUses = useFactUses(site.key, beside?.kind === 'facts' ? (id as FactId | null) : null, revision);
  return useMemo(() => {
    const item = kind && id !== null ? kind.listed(site, derived).find((one) => one.id === id) : undefined;
    if (!kind || !item) return null;
    const touched = kind.touched(site, derived, item.id, { factUses });
    return { item, touched, words: touched ? wordsOfTouched(site, touched) : NO_WORDS };
  }, [kind, id, site, derived, factUses]);
}

/** What was found, as far as it is marked. */
export const foundAmong = (derived: Derived, marked: ReadonlyMap<PageId, unknown>, found: Found | null): Found =>
  withContext(derived.outline, (row) => {
    const isMarked = marked.has(derived.outline.nodes[row]!.id);
    return isMarked && (found === null || found.matches.has(row));
  });
