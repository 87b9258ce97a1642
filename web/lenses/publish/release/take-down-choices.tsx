import { derivedOf } from '#core/derive/derived.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import type { PageId } from '#core/model/ids.ts';
import type { LeadsTo } from '#core/model/redirect.ts';
import type { Site } from '#core/model/site.ts';
import { PageOptions } from '../../../fields/page-options.tsx';
import { liveAddress } from '../../../tree/live-address.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

const MAX_LISTED = 30;
const FIELD = 'h-7 min-w-0 max-w-56 rounded-md border border-edge bg-raised px-2 text-small';

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
  const { outline, addresses } = derivedOf(liveSiteOf(after));
  const set = (page: PageId, value: string) => {
    const others = Object.fromEntries(Object.entries(chosen).filter(([id]) => id !== page)) as Chosen;
    onChoose(value === '' ? others : { ...others, [page]: value === 'gone' ? 'gone' : { page: value as PageId } });
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
              <select
                aria-label={`Where ${address} leads`}
                className={FIELD}
                value={to === undefined ? '' : to === 'gone' ? 'gone' : to.page}
                onChange={(event) => set(page, event.target.value)}
              >
                <option value="">The page above</option>
                <option value="gone">Nowhere: permanently gone (410)</option>
                <optgroup label="Another page">
                  <PageOptions
                    outline={outline}
                    language={site.settings.language}
                    isOffered={(row) => addresses[row] !== null}
                  />
                </optgroup>
              </select>
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
