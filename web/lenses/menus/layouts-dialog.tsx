import { useMemo, useState } from 'react';
import { pagesByLayout } from '#core/derive/layouts.ts';
import type { PageId } from '#core/model/ids.ts';
import {
  HEADER_STYLES,
  type HeaderStyle,
  MAX_LAYOUT_NAME_LENGTH,
  type Layout,
  MENU_SLOTS,
  type MenuSlot,
} from '#core/model/layout.ts';
import type { MenuId } from '#core/model/menu.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Operation } from '#core/operations/operation.ts';
import { newLayoutId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { PageField } from '../../fields/page-field.tsx';
import { NamedThing, NamedThings } from '../../fields/named-things.tsx';
import { menuName, pages } from '../../tree/words.ts';
import { Choice, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { TrailFields } from './trail-fields.tsx';

const SLOT_WORDS: Readonly<Record<MenuSlot, string>> = {
  utility: 'In a line above the header',
  header: 'In the header',
  side: 'Beside the text',
  footer: 'In the footer',
};
const HEADER_WORDS: Readonly<Record<HeaderStyle, string>> = {
  tall: 'Tall, with a picture and the strapline',
  band: 'A band',
  slim: 'Slim, in one row',
  title: 'The site’s name only',
  none: 'No header',
};
/** So many pages of a layout are named. */
const MAX_NAMED = 8;

/** The layouts of the site: what stands in each place, and which pages take it. */
export function LayoutsDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store, selection, derived } = useWorkbench();
  const { layouts, trail } = site.settings;
  const users = useMemo(() => pagesByLayout(site), [site]);
  const [sample, setSample] = useState<PageId | null>(
    selection.active ?? derived.outline.nodes.find(({ type }) => type === 'page')?.id ?? null,
  );
  return (
    <NamedThings
      title="Layouts"
      description="A layout is the frame around pages. Pages without a layout of their own use the first one; a page’s layout also applies to everything below it. A change affects every page that uses the layout."
      one="layout"
      placeholder="Without header"
      longest={MAX_LAYOUT_NAME_LENGTH}
      isEmpty={layouts.length === 0}
      onAdd={(title) => store.apply([{ name: 'layout.add', layout: newLayoutId(), title }]) === null}
      onClose={onClose}
    >
      <details className="rounded-md border border-rule">
        <summary className="cursor-pointer px-4 py-2 font-medium">Trails of the whole site</summary>
        <div className="border-t border-rule px-4 py-3">
          <TrailFields
            setting={trail}
            sample={sample}
            onSet={(next) => store.apply([{ name: 'site.set', fields: { trail: next } }])}
          />
        </div>
      </details>
      {layouts.map((layout) => (
        <OneLayout key={layout.id} layout={layout} users={users.get(layout.id) ?? []} sample={sample} />
      ))}
      <PageField
        label="The page whose trail shows above"
        value={sample ?? ''}
        isOffered={(row) => derived.outline.nodes[row]!.type === 'page'}
        onChoose={(page) => setSample(page as PageId)}
      />
    </NamedThings>
  );
}

type Fields = Extract<Operation, { name: 'layout.set' }>['fields'];

function OneLayout({
  layout,
  users,
  sample,
}: {
  readonly layout: Layout;
  readonly users: readonly PageId[];
  readonly sample: PageId | null;
}) {
  const { site, store } = useWorkbench();
  const { menus, trail } = site.settings;
  const set = (fields: Fields) => store.apply([{ name: 'layout.set', layout: layout.id, fields }]);
  const names = users.slice(0, MAX_NAMED).map((id) => `‘${textIn(nodeAt(site, id).title, site.settings.language)}’`);
  return (
    <NamedThing
      name={layout.name}
      one="layout"
      longest={MAX_LAYOUT_NAME_LENGTH}
      hint={
        users.length === 0
          ? 'No page uses it yet.'
          : `A change here affects ${pages(users.length)}: ${names.join(', ')}${users.length > MAX_NAMED ? ` and ${users.length - MAX_NAMED} more` : ''}.`
      }
      onRename={(title) => set({ title })}
      onRemove={() => store.apply([{ name: 'layout.remove', layout: layout.id }])}
    >
      <div className="grid grid-cols-2 gap-3 max-md:grid-cols-1">
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
        {MENU_SLOTS.map((slot) => (
          <Choice
            key={slot}
            label={SLOT_WORDS[slot]}
            value={layout.menus[slot] ?? ''}
            onChange={(event) =>
              set({
                menus: { ...layout.menus, [slot]: event.target.value === '' ? null : (event.target.value as MenuId) },
              })
            }
          >
            <option value="">No menu</option>
            {menus.map((menu) => (
              <option key={menu.id} value={menu.id}>
                {menuName(menu)}
              </option>
            ))}
          </Choice>
        ))}
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
    </NamedThing>
  );
}
