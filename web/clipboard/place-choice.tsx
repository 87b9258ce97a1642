import type { DropPlace } from '#core/arrange/landing.ts';
import { childrenOf, maybeNodeAt } from '#core/model/site.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';

export type Side = 'inside' | 'after' | 'before';

/** The place on that side of a page; at the end of the top level where there is none. */
export function placeOn(site: Site, page: PageId | null, side: Side): Pick<DropPlace, 'parent' | 'after'> {
  const node = page === null ? undefined : maybeNodeAt(site, page);
  if (!node) return { parent: null, after: childrenOf(site, null).at(-1) ?? null };
  if (side === 'inside') return { parent: node.id, after: childrenOf(site, node.id).at(-1) ?? null };
  const siblings = childrenOf(site, node.parent);
  return { parent: node.parent, after: side === 'after' ? node.id : (siblings[siblings.indexOf(node.id) - 1] ?? null) };
}

const SIDES: readonly { readonly side: Side; readonly words: string }[] = [
  { side: 'after', words: 'After it' },
  { side: 'inside', words: 'Inside it, last' },
  { side: 'before', words: 'Before it' },
];

/** Chooses where something lands, seen from the selected page. */
export function PlaceChoice({
  site,
  page,
  side,
  onChoose,
}: {
  readonly site: Site;
  readonly page: PageId | null;
  readonly side: Side;
  readonly onChoose: (side: Side) => void;
}) {
  const node = page === null ? undefined : maybeNodeAt(site, page);
  if (!node) return <p className="text-quiet">They will stand at the end of the top level.</p>;
  return (
    <fieldset className="flex flex-wrap gap-x-5 gap-y-1">
      <legend className="mb-1 text-small font-medium">
        Where, seen from ‘{textIn(node.title, site.settings.language)}’
      </legend>
      {SIDES.filter((one) => one.side !== 'inside' || node.type !== 'link').map((one) => (
        <label key={one.side} className="inline-flex items-center gap-1.5">
          <input
            type="radio"
            name="side"
            className="accent-accent"
            checked={side === one.side}
            onChange={() => onChoose(one.side)}
          />
          {one.words}
        </label>
      ))}
    </fieldset>
  );
}
