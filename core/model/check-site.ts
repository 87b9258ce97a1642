import { scopeBelow } from './address-scope.ts';
import { liveInPractice } from './practice.ts';
import { isOrderKey } from './place.ts';
import { MAX_DEPTH, type Site, addsStep, ancestorsOf, childrenOf, homeOf, isWithin, nodeAt } from './site.ts';
import { RESERVED_AT_ROOT } from './slug.ts';

/** Every rule of a sound site that this one breaks, in words; empty for a sound one. For tests and imports. */
export function checkSite(site: Site): string[] {
  const faults: string[] = [];
  const home = homeOf(site);
  const slugsTaken = new Map<string, string>();
  site.nodes.forEach((node, id) => {
    if (node.id !== id) faults.push(`${id}: stands under another id`);
    if (Object.keys(node.title).length === 0) faults.push(`${id}: has no title`);
    if (!isOrderKey(node.order)) faults.push(`${id}: '${node.order}' is no order key`);
    if ((node.type === 'link') !== (node.target !== null)) faults.push(`${id}: a link and only a link has a target`);
    if (node.type !== 'page' && node.content !== null) faults.push(`${id}: only a page has text`);
    if (node.type === 'page' && !node.inAddress) faults.push(`${id}: a page is always in its address`);
    if (node.removedWith !== null) {
      if (childrenOf(site, id).length > 0) faults.push(`${id}: is removed and has children`);
      return;
    }
    if (!childrenOf(site, node.parent).includes(id)) faults.push(`${id}: is not among its parent's children`);
    if (node.parent !== null) {
      const parent = site.nodes.get(node.parent);
      if (!parent || parent.removedWith !== null) return void faults.push(`${id}: its parent is not there`);
      if (parent.type === 'link') faults.push(`${id}: stands under a link`);
      if (isWithin(site, node.parent, id)) return void faults.push(`${id}: stands under itself`);
      if (ancestorsOf(site, id).length >= MAX_DEPTH) faults.push(`${id}: stands too deep`);
    }
    for (const language of node.type === 'link' ? [] : Object.keys(node.title)) {
      const slug = node.slug[language];
      if (!slug || slug.text === '') faults.push(`${id}: has no slug in '${language}'`);
      else if (addsStep(node, home)) {
        const scope = scopeBelow(site, node.parent, home);
        const key = `${scope ?? ''}/${slug.text}`;
        const holder = slugsTaken.get(key);
        if (holder !== undefined && holder !== id) faults.push(`${id}: has the address of ${holder}`);
        slugsTaken.set(key, id);
        if (scope === null && RESERVED_AT_ROOT.has(slug.text)) faults.push(`${id}: has a reserved address`);
      }
    }
  });
  site.children.forEach((ids, parent) => {
    if (ids.length === 0) faults.push(`${parent}: keeps an empty list of children`);
    ids.forEach((id, index) => {
      const node = nodeAt(site, id);
      if (node.parent !== parent) faults.push(`${id}: is listed under ${parent}`);
      const previous = index > 0 ? nodeAt(site, ids[index - 1]!) : null;
      if (previous && (previous.order > node.order || (previous.order === node.order && previous.id >= id)))
        faults.push(`${id}: stands out of order`);
    });
  });
  const practised = liveInPractice(site);
  if (practised !== undefined) faults.push(`${practised}: is live in the practice branch`);
  site.live.forEach((entry, id) => {
    const parent = entry.node.parent === null ? null : site.live.get(entry.node.parent);
    if (!entry.retired && parent !== null && (parent === undefined || parent.retired))
      faults.push(`${id}: is live under a page that is not`);
  });
  return faults;
}
