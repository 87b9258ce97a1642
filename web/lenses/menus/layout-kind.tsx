import { PanelsTopLeft } from 'lucide-react';
import { giveLayout } from '#core/arrange/give.ts';
import { touchedByLayout } from '#core/derive/touched.ts';
import { pagesByLayout } from '#core/derive/layouts.ts';
import type { PageId } from '#core/model/ids.ts';
import { HEADER_STYLES, type HeaderStyle, MAX_LAYOUT_NAME_LENGTH, type LayoutId } from '#core/model/layout.ts';
import type { Operation } from '#core/operations/operation.ts';
import { type Edit, newLayoutId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import type { ListKind } from '../../settings/settings-kind.ts';
import { pages } from '../../tree/words.ts';
import { Choice, Tick } from '../../ui/field.tsx';
import { PageAsVisitors } from '../../walk/page-as-visitors.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { LayoutDrawing } from './layout-drawing.tsx';
import { PlaceMenus } from './place-menus.tsx';
import { TrailFields } from './trail-fields.tsx';

const HEADER_WORDS: Readonly<Record<HeaderStyle, string>> = {
  tall: 'Tall, with a picture and the strapline',
  band: 'A band',
  slim: 'Slim, in one row',
  title: 'The site’s name only',
  none: 'No header',
};
/** The layouts of the site: what stands in each place, and which pages take it. */
export const LAYOUTS: ListKind = {
  edits: 'menus',
  title: 'Layouts',
  one: 'layout',
  Sign: PanelsTopLeft,
  description:
    'A layout is the frame around pages. Pages without a layout of their own use the first one; a page’s layout also applies to everything below it.',
  placeholder: 'Without header',
  longest: MAX_LAYOUT_NAME_LENGTH,
  items: (site) => site.settings.layouts,
  says: (site) => {
    const users = pagesByLayout(site);
    const standard = site.settings.layouts[0]?.id;
    return (id) => ({
      says: `${pages(users.get(id as LayoutId)?.length ?? 0)}${id === standard ? ', and all that name no other' : ''}`,
    });
  },
  touched: (site, { outline }, id) => touchedByLayout(site, outline, id as LayoutId),
  add: (title) => {
    const layout = newLayoutId();
    return { id: layout, edit: { name: 'layout.add', layout, title } };
  },
  rename: (id, title) => ({ name: 'layout.set', layout: id as LayoutId, fields: { title } }),
  remove: (id) => ({ name: 'layout.remove', layout: id as LayoutId }),
  give: (site, to, id) => giveLayout(site, to, id as LayoutId) as Edit[],
  Fields: LayoutFields,
  ForAll: TrailsOfSite,
};

/** The page whose trail is shown as a sample: the selected one, else the first. */
function useSample(): PageId | null {
  const { selection, derived } = useWorkbench();
  return selection.active ?? derived.outline.nodes.find(({ type }) => type === 'page')?.id ?? null;
}

function TrailsOfSite() {
  const { site, store } = useWorkbench();
  const sample = useSample();
  return (
    <details className="rounded-md border border-rule">
      <summary className="cursor-pointer px-4 py-2 font-medium">Trails of the whole site</summary>
      <div className="border-t border-rule px-4 py-3">
        <TrailFields
          setting={site.settings.trail}
          sample={sample}
          onSet={(next) => store.apply([{ name: 'site.set', fields: { trail: next } }])}
        />
      </div>
    </details>
  );
}

type Fields = Extract<Operation, { name: 'layout.set' }>['fields'];

function LayoutFields({ id }: { readonly id: string }) {
  const { site, store } = useWorkbench();
  const sample = useSample();
  const { openSetting, selection } = useWorkbench();
  const { trail, layouts } = site.settings;
  const layout = layouts.find((one) => one.id === id);
  if (!layout) return null;
  // The selected page where it takes the layout, else the first that does.
  const touched = openSetting?.touched;
  const touchedSample =
    selection.active !== null && touched?.has(selection.active) ? selection.active : touched?.keys().next().value;
  const shownPage = touchedSample ?? sample;
  const set = (fields: Fields) => store.apply([{ name: 'layout.set', layout: layout.id, fields }]);
  return (
    <>
      <PlaceMenus layout={layout} onSet={(slots) => set({ menus: slots })}>
        <LayoutDrawing layout={layout} sample={shownPage} />
      </PlaceMenus>
      <div className="grid gap-3 @sm:grid-cols-2">
        <Choice
          label="Header"
          value={layout.header}
          onChange={(event) => set({ header: event.target.value as HeaderStyle })}
        >
          {HEADER_STYLES.map((style) => (
            <option key={style} value={style}>
              {HEADER_WORDS[style]}
            </option>
          ))}
        </Choice>
        {layout.header === 'tall' && (
          <DraftField
            label="Picture"
            saved={layout.picture}
            longest={2000}
            placeholder="https://"
            hint="The address of a picture. Without one, the header has a plain tint."
            onSave={(picture) => set({ picture: picture.trim() })}
          />
        )}
      </div>
      <Tick
        label="A footer, with the facts of the site"
        checked={layout.hasFooter}
        onChange={(event) => set({ hasFooter: event.target.checked })}
      />
      <Tick
        label="Links to the previous and next page of the section"
        checked={layout.hasTurns}
        onChange={(event) => set({ hasTurns: event.target.checked })}
      />
      <Tick
        label="Trails of its own"
        hint="Otherwise they follow the whole site."
        checked={layout.trail !== null}
        onChange={(event) => set({ trail: event.target.checked ? trail : null })}
      />
      {layout.trail && <TrailFields setting={layout.trail} sample={sample} onSet={(next) => set({ trail: next })} />}
      {shownPage !== null && <PageAsVisitors page={shownPage} />}
    </>
  );
}
