import useSWRImmutable from 'swr/immutable';
import type { TextDocument } from '#core/model/content.ts';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import { call } from './client.ts';

const EMPTY: TextDocument = { type: 'doc', content: [{ type: 'paragraph' }] };
/** Texts that were made here: they need not be fetched. */
const madeHere = new Map<ContentId, TextDocument>();

export const rememberContent = (id: ContentId, document: TextDocument): unknown => madeHere.set(id, document);

/** A page's text; undefined until it is here. A text of an id never changes. */
export function useContent(site: SiteKey, id: ContentId | null): TextDocument | undefined {
  const here = id === null ? EMPTY : madeHere.get(id);
  const { data } = useSWRImmutable(here ? null : ['/contents', site, id], () =>
    call('showContent', { site, content: id! }),
  );
  return here ?? data?.document;
}

/** Texts of a site, for carrying them to another one. @throws ServerProblem, NoAnswer */
export async function fetchContents(
  site: SiteKey,
  ids: readonly ContentId[],
): Promise<{ id: ContentId; document: TextDocument }[]> {
  const fetched = [];
  for (const id of ids) fetched.push(await call('showContent', { site, content: id }));
  return fetched;
}
