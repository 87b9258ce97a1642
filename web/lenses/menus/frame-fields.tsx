import { pagesWithTrailOf, trailSettingOf, layoutWithReason } from '#core/derive/layouts.ts';
import { type FrameChange, type Listing, PLAIN_LISTING } from '#core/model/frame.ts';
import type { PageId } from '#core/model/ids.ts';
import type { LayoutId } from '#core/model/layout.ts';
import { type Site, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { DayField } from '../../fields/day-field.tsx';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Choice, Radios } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { TrailFields } from './trail-fields.tsx';

/** The frame of a page: its layout, its trail, what it lists, and its day. */
export function FrameFields({ page }: { readonly page: PageId }) {
  const { site, store, derived, mayEdit } = useWorkbench();
  const node = nodeAt(site, page);
  const set = (frame: FrameChange) => store.apply([{ name: 'page.set', page, fields: { frame } }]);
  const { layout, namedBy } = layoutWithReason(site, page);
  const own = node.frame?.layout ?? null;
  const ownListing = node.frame?.listing ?? null;
  const listing = ownListing ?? PLAIN_LISTING;
  const setListing = (change: Partial<Listing>) => set({ listing: { ...listing, ...change } });
  return (
    <details className="rounded-md border border-rule">
      <summary className="cursor-pointer px-3 py-2 font-medium">Layout: {layout.name}</summary>
      <fieldset disabled={!mayEdit} className="flex flex-col gap-4 border-t border-rule px-3 py-3">
        <Choice
          label="Layout"
          value={own ?? ''}
          hint={
            own !== null
              ? 'For this page and everything below it.'
              : namedBy === null
                ? 'The site’s first layout; no page above has another.'
                : `From ‘${titleOf(site, namedBy)}’ above.`
          }
          onChange={(event) => set({ layout: event.target.value === '' ? null : (event.target.value as LayoutId) })}
        >
          <option value="">As the page above</option>
          {site.settings.layouts.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
        <TrailOfPage page={page} onSet={set} />
        {node.type === 'page' && (
          <>
            <Choice
              label="What it lists"
              value={ownListing?.look ?? ''}
              onChange={(event) => {
                const look = event.target.value as Listing['look'] | '';
                set({
                  listing: look === '' ? null : { ...listing, look, ...(look === 'sitemap' && { levels: 3 }) },
                });
              }}
            >
              <option value="">
                {page === derived.home ? 'Nothing, as it is the home page' : 'The pages right below it'}
              </option>
              <option value="list">A list</option>
              <option value="cards">Cards</option>
              <option value="a to z">A to Z</option>
              <option value="sitemap">All pages of the site</option>
              <option value="none">Nothing</option>
            </Choice>
            {ownListing && listing.look !== 'none' && (
              <div className="grid grid-cols-2 gap-3">
                <Choice
                  label="Levels listed"
                  value={listing.levels}
                  onChange={(event) => setListing({ levels: Number(event.target.value) })}
                >
                  {[1, 2, 3, 4, 5, 6].map((levels) => (
                    <option key={levels} value={levels}>
                      {levels}
                    </option>
                  ))}
                </Choice>
                {listing.look !== 'a to z' && (
                  <Choice
                    label="Order"
                    value={listing.order}
                    onChange={(event) => setListing({ order: event.target.value as Listing['order'] })}
                  >
                    <option value="tree">Tree order</option>
                    <option value="alphabet">Alphabetical</option>
                    <option value="date">Newest first</option>
                  </Choice>
                )}
              </div>
            )}
            <DayField
              label="Its date"
              value={node.frame?.date ?? ''}
              hint="For menus and lists that show the newest first."
              onSet={(day) => set({ date: day === '' ? null : day })}
            />
          </>
        )}
      </fieldset>
    </details>
  );
}

const titleOf = (site: Site, page: PageId): string => textIn(nodeAt(site, page).title, site.settings.language);

/** The trail of a page: whose setting holds, and one of its own. */
function TrailOfPage({ page, onSet }: { readonly page: PageId; readonly onSet: (frame: FrameChange) => void }) {
  const { site } = useWorkbench();
  const { setting, setBy } = trailSettingOf(site, page);
  const own = nodeAt(site, page).frame?.trail ?? null;
  const words = {
    page: 'set for this page',
    branch: setBy.by === 'branch' ? `set for the branch of ‘${titleOf(site, setBy.page)}’` : '',
    layout: setBy.by === 'layout' ? `set by the layout ‘${setBy.layout.name}’` : '',
    site: 'as the whole site has it',
  }[setBy.by];
  return (
    <section aria-label="Trail of the page" className="flex flex-col gap-2">
      <p className="text-small font-medium">Trail: {words}</p>
      {own === null ? (
        <div>
          <Button onClick={() => onSet({ trail: { setting, reach: 'page' } })}>Set it for this page</Button>
        </div>
      ) : (
        <>
          <Radios
            legend="Applies to"
            value={own.reach}
            choices={[
              { value: 'page', words: 'This page' },
              { value: 'branch', words: 'The branch' },
            ]}
            onChoose={(reach) => onSet({ trail: { ...own, reach } })}
          />
          <p className="text-small text-quiet">A change here affects {pages(pagesWithTrailOf(site, page))}.</p>
          <TrailFields
            setting={own.setting}
            sample={page}
            onSet={(next) => onSet({ trail: { ...own, setting: next } })}
          />
          <div>
            <Button onClick={() => onSet({ trail: null })}>Remove its own setting</Button>
          </div>
        </>
      )}
    </section>
  );
}
