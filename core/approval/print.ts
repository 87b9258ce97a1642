import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { canonicalJson } from '../model/canonical-json.ts';
import type { PageId } from '../model/ids.ts';
import { LIVE_FIELDS, type LiveFieldName } from '../model/node.ts';
import { pageField } from '../model/page-fields.ts';
import { type Site, maybeNodeAt } from '../model/site.ts';

/** What is proposed where a page no longer stands in the tree: that it is taken down. */
export const REMOVED_PRINT = 'removed';

/**
 * What a page would be once it is live, as a short text: the same where visitors would get the same, so that an approval holds for as long as
 * nothing was changed since. A plan is none of it.
 */
export function printOf(site: Site, page: PageId): string {
  const node = maybeNodeAt(site, page);
  if (!node) return REMOVED_PRINT;
  const values = LIVE_FIELDS.map((name: LiveFieldName) => pageField(name).toKept(node[name] as never));
  return bytesToHex(sha256(utf8ToBytes(canonicalJson([node.parent, node.order, values])))).slice(0, 24);
}
