import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { type AccessReason, type Membership, accessReason, accessTable } from './access.ts';
import { derivedOf } from './derived.ts';

/** A visitor at a moment, in milliseconds since 1970. */
export interface Seeing {
  readonly visitor: Membership;
  readonly at: number;
}

/** A page that one of two visitors can open and the other cannot, with the reason for each. */
export interface AccessDifference {
  readonly page: PageId;
  readonly left: AccessReason;
  readonly right: AccessReason;
}

/** The pages that two visitors, or one at two moments, do not both have, in tree order. */
export function compareAccess(site: Site, left: Seeing, right: Seeing): AccessDifference[] {
  const { outline } = derivedOf(site);
  const [a, b] = [left, right].map(({ visitor, at }) => accessTable(outline, site.settings, [visitor], at).open);
  return outline.nodes.flatMap(({ id, type }, row) =>
    type === 'page' && a![row] !== b![row]
      ? [
          {
            page: id,
            left: accessReason(site, id, left.visitor, left.at),
            right: accessReason(site, id, right.visitor, right.at),
          },
        ]
      : [],
  );
}
