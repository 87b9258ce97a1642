import type { Side } from '#core/arrange/landing.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { SIDES } from '../tree/words.ts';
import { Radios } from '../ui/field.tsx';

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
  if (!node) return <p className="text-quiet">They go at the end of the top level.</p>;
  return (
    <Radios
      legend={`Where, relative to ‘${textIn(node.title, site.settings.language)}’`}
      choices={SIDES.filter((one) => one.value !== 'inside' || node.type !== 'link')}
      value={side}
      onChoose={onChoose}
    />
  );
}
