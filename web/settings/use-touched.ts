import { useMemo } from 'react';
import type { Derived } from '#core/derive/derived.ts';
import type { Touched } from '#core/derive/touched.ts';
import { type Found, withContext } from '#core/derive/visible-rows.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { type NamedInTexts, useTextUses } from '../api/find.ts';
import { useNow } from '../ui/use-now.ts';
import type { Marks } from '../workbench/workbench-context.tsx';
import type { Beside, SettingsKey } from './settings-keys.ts';
import { useSettings } from './use-settings.ts';
import type { Named } from './settings-kind.ts';
import { marksOfTouched } from './through-words.ts';

/** The setting that is open beside the tree, with what it touches. */
export interface OpenSetting {
  readonly item: Named;
  /** Null where that is not known yet. */
  readonly touched: Touched | null;
  /** The rows, each with why; null where that is not known yet. */
  readonly marks: Marks | null;
}

/** Settings that texts name: which pages those are is asked of the server. */
const NAMED_IN_TEXTS: { readonly [Key in SettingsKey]?: NamedInTexts } = {
  facts: 'fact',
  shared: 'shared',
  forms: 'form',
};

/** The setting that stands beside the tree; null where there is none. */
export function useOpenSetting(
  site: Site,
  derived: Derived,
  beside: Beside | null,
  revision: number,
  moment: number | null,
): OpenSetting | null {
  const settings = useSettings();
  const open = beside && settings?.[beside.kind];
  const kind = open && 'Fields' in open ? open : null;
  const id = beside?.id ?? null;
  const named = beside === null ? undefined : NAMED_IN_TEXTS[beside.kind];
  const textUses = useTextUses(site.key, named ?? 'fact', named === undefined ? null : id, revision);
  const now = useNow();
  // What the clock does not change is not worked out anew as it goes on.
  const at = kind?.followsClock ? (moment ?? now) : 0;
  return useMemo(() => {
    const item = kind && id !== null ? kind.items(site).find((one) => one.id === id) : undefined;
    if (!kind || !item) return null;
    const touched = kind.touched(site, derived, item.id, { textUses, at });
    return { item, touched, marks: touched && marksOfTouched(site, item.name, touched) };
  }, [kind, id, site, derived, textUses, at]);
}

/** What was found, as far as it is marked. */
export const foundAmong = (derived: Derived, marked: ReadonlyMap<PageId, unknown>, found: Found | null): Found =>
  withContext(derived.outline, (row) => {
    const isMarked = marked.has(derived.outline.nodes[row]!.id);
    return isMarked && (found === null || found.matches.has(row));
  });
