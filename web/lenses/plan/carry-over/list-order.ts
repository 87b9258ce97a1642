import type { PageId } from '#core/model/ids.ts';
import type { Line, OldPageWire } from './carry-over-context.ts';

export type OldOrder = 'plan' | 'visits' | 'address';

/** The old pages in an order; as the plan: each where its partner stands, those without one at the end. */
export function inOrder(
  pages: readonly OldPageWire[],
  order: OldOrder,
  partnerOf: (address: string) => PageId | undefined,
  rowOf: Pick<ReadonlyMap<PageId, number>, 'get'>,
): readonly OldPageWire[] {
  if (order === 'address') return pages;
  const rank =
    order === 'visits'
      ? (page: OldPageWire) => -(page.visits ?? -1)
      : (page: OldPageWire) => {
          const partner = partnerOf(page.address);
          return partner === undefined ? Infinity : (rowOf.get(partner) ?? Infinity);
        };
  return pages
    .map((page) => ({ page, at: rank(page) }))
    .sort((a, b) => (a.at === b.at ? (a.page.address < b.page.address ? -1 : 1) : a.at - b.at))
    .map(({ page }) => page);
}

/** The lines of each page, accepted ones and the surest first. */
export function linesBySide(lines: readonly Line[]): {
  readonly ofOld: ReadonlyMap<string, readonly Line[]>;
  readonly ofPlanned: ReadonlyMap<PageId, readonly Line[]>;
} {
  const ofOld = new Map<string, Line[]>();
  const ofPlanned = new Map<PageId, Line[]>();
  for (const line of lines) {
    ofOld.set(line.old, [...(ofOld.get(line.old) ?? []), line]);
    ofPlanned.set(line.planned, [...(ofPlanned.get(line.planned) ?? []), line]);
  }
  return { ofOld, ofPlanned };
}
