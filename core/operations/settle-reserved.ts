import type { Language } from '../model/ids.ts';
import { addsStep, homeOf, type Site } from '../model/site.ts';
import { isReservedSlug } from '../model/slug.ts';
import type { Operation } from './operation.ts';

/**
 * The changes that give pages other slugs whose own are reserved: from a site that was made before they were. One that follows the title
 * gets a number, one that was chosen an ending. Nothing where there is none.
 */
export function settleReserved(site: Site): Extract<Operation, { name: 'page.set' }>[] {
  const home = homeOf(site);
  return [...site.nodes.values()].flatMap((node) => {
    if (node.removedWith !== null || !addsStep(node, home)) return [];
    const reserved = Object.entries(node.slug).filter(([, { text }]) => isReservedSlug(text));
    if (reserved.length === 0) return [];
    const slug = Object.fromEntries(
      reserved.map(([language, { text, own }]) => [
        language as Language,
        { text: own ? `${text}-page` : `${text}-2`, own },
      ]),
    );
    return [{ name: 'page.set' as const, page: node.id, fields: { slug } }];
  });
}
