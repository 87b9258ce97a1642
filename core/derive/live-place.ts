import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import type { Site } from '../model/site.ts';
import { stepOf } from './outline-columns.ts';

/** Where visitors have a node. */
export interface LivePlace {
  /** Null for a heading or a link. */
  readonly address: string | null;
  /** Whether hiding keeps nobody from it. */
  readonly isReachable: boolean;
}

/** Where visitors have a node, read from it and those above it alone: as the live site says, which for one page need not be made. Null where they have none. */
export function livePlaceOf(site: Site, id: PageId): LivePlace | null {
  const { language, home } = site.liveSettings ?? site.settings;
  const liveAt = (page: PageId): SiteNode | null => {
    const entry = site.live.get(page);
    return entry && !entry.retired && entry.node.removedWith === null ? entry.node : null;
  };
  const homeNode = home === null ? null : liveAt(home);
  const isHome = (node: SiteNode) => node === homeNode && node.type === 'page';
  const own = liveAt(id);
  let path = '';
  let isBelowHome = false;
  let isReachable = own?.hidden === 'no';
  for (let node = own; ;) {
    if (node === null) return null;
    if (isHome(node)) isBelowHome = true;
    const step = isBelowHome ? null : stepOf(node, language);
    if (step !== null) path = `/${step}${path}`;
    if (node.hidden === 'branch') isReachable = false;
    if (node.parent === null) break;
    node = liveAt(node.parent);
  }
  const isPage = own!.type === 'page';
  const address = isHome(own!) ? '/' : isPage && stepOf(own!, language) !== null ? path : null;
  return { address, isReachable };
}
