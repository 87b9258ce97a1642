import { derivedOf } from '#core/derive/derived.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { PageId } from '#core/model/ids.ts';
import type { LeadsTo } from '#core/model/redirect.ts';
import type { Site } from '#core/model/site.ts';
import { PageField } from '../../../fields/page-field.tsx';
import { liveAddress } from '../../../tree/live-address.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

const MAX_LISTED = 30;

const ABOVE = { value: 'above', words: 'The page above' };
const GONE = { value: 'gone', words: 'Nowhere: permanently gone (410)' };

type Chosen = Readonly<Record<PageId, NonNullable<LeadsTo>>>;

/** Where the addresses of pages lead that are taken down: above, to another page, or nowhere. */
export function TakeDownChoices({
  pages,
  after,
  chosen,
  onChoose,
}: {
  readonly pages: readonly PageId[];
  /** The site with the release made. */
  readonly after: Site;
  readonly chosen: Chosen;
  readonly onChoose: (chosen: Chosen) => void;
}) {
  const { site } = useWorkbench();
  const withAddress = pages.filter((page) => liveAddress(site, page) !== null);
  if (withAddress.length === 0) return null;
  const liveAfter = liveSiteOf(after);
  const live = derivedOf(liveAfter);
  const set = (page: PageId, value: string) => {
    const others = Object.fromEntries(Object.entries(chosen).filter(([id]) => id !== page)) as Chosen;
    onChoose(
      value === ABOVE.value ? others : { ...others, [page]: value === 'gone' ? 'gone' : { page: value as PageId } },
    );
  };
  return (
    <section aria-labelledby="lead">
      <h3 id="lead" className="text-small font-medium">
        Where their addresses lead after that
      </h3>
      <ul>
        {withAddress.slice(0, MAX_LISTED).map((page) => {
          const to = chosen[page];
          const address = liveAddress(site, page)!;
          return (
            <li key={page} className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1 py-0.5">
              <span className="min-w-0 font-mono text-small break-all">{address}</span>
              <div className="w-56 text-small">
                <PageField
                  isBare
                  label={`Where ${address} leads`}
                  value={to === undefined ? ABOVE.value : to === 'gone' ? 'gone' : to.page}
                  others={[ABOVE, GONE]}
                  of={liveAfter}
                  isOffered={(row) => live.addresses[row] !== null}
                  onChoose={(value) => set(page, value)}
                />
              </div>
            </li>
          );
        })}
      </ul>
      {withAddress.length > MAX_LISTED && (
        <p className="text-small text-quiet">
          The {withAddress.length - MAX_LISTED} others lead to the page above each of them.
        </p>
      )}
    </section>
  );
}
