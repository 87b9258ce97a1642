import { useMemo, useState } from 'react';
import { isSameJson } from '#core/model/canonical-json.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { type Surround, surroundOf } from '#core/sketch/surround.ts';

/** What stands around a page: the same object while nothing about it changes, so that edits elsewhere draw nothing anew. */
export function useSurroundOf(site: Site, page: PageId | null): Surround {
  const made = useMemo(() => surroundOf(site, page), [site, page]);
  const [kept, setKept] = useState(made);
  if (kept === made) return made;
  if (isSameJson(kept, made)) return kept;
  setKept(made);
  return made;
}
