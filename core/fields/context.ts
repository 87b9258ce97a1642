import type { FileId } from '../files/file.ts';
import type { PageId } from '../model/ids.ts';
import { type Site, maybeNodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import type { FieldContext } from './field-type.ts';

const byTitle = new WeakMap<Site['nodes'], ReadonlyMap<string, readonly PageId[]>>();

/** The standing pages of a site by their titles in its language, in small letters. */
function pagesByTitle({ nodes, settings }: Site): ReadonlyMap<string, readonly PageId[]> {
  let known = byTitle.get(nodes);
  if (!known) {
    const pages = new Map<string, PageId[]>();
    nodes.forEach(({ id, type, title, removedWith }) => {
      if (type !== 'page' || removedWith !== null) return;
      const key = textIn(title, settings.language).toLowerCase();
      const same = pages.get(key);
      if (same) same.push(id);
      else pages.set(key, [id]);
    });
    byTitle.set(nodes, (known = pages));
  }
  return known;
}

/** What reading and saying values of a site needs. @param today by the site's clock, as ISO 8601 has it */
export const fieldContextOf = (
  site: Site,
  today: string,
  fileName: (file: FileId) => string | undefined = () => undefined,
): FieldContext => ({
  language: site.settings.language,
  today,
  titleOf: (page) => {
    const node = maybeNodeAt(site, page);
    return node?.type === 'page' ? textIn(node.title, site.settings.language) : undefined;
  },
  pagesTitled: (title) => pagesByTitle(site).get(title.trim().toLowerCase()) ?? [],
  fileName,
});
