import { outlineOf } from '../derive/outline.ts';
import type { PageId } from '../model/ids.ts';
import { planOf } from '../model/plan.ts';
import type { Site } from '../model/site.ts';
import { pathOfOldAddress } from './old-address.ts';

/** Where one address of the old site leads. */
export interface OldRedirect {
  /** The address as it stands in the plan. */
  readonly address: string;
  /** Its path and query, by which a visitor's request is found. */
  readonly path: string;
  /** The page that it leads to, or null where it is gone. */
  readonly page: PageId | null;
}

/**
 * The redirects that follow from the plan: an old address leads to the page that takes it over, else where it was let
 * go to. Where several pages take one over, the first in tree order has it; what a page takes over is not gone.
 */
export function oldRedirects(site: Site): OldRedirect[] {
  const found = new Map<string, OldRedirect>();
  const add = (address: string, page: PageId | null) => {
    const path = pathOfOldAddress(address);
    if (!found.has(path)) found.set(path, { address, path, page });
  };
  for (const node of outlineOf(site).nodes)
    if (node.plan !== null && node.type === 'page')
      for (const address of planOf(node).oldAddresses) add(address, node.id);
  for (const [address, { letGo }] of site.oldPages)
    if (letGo !== null) add(address, letGo === 'gone' ? null : letGo.page);
  return [...found.values()];
}
