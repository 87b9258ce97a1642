import { useState } from 'react';
import { menuTableOf } from '#core/derive/menu-table.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Menu, type MenuId, entryOf } from '#core/model/menu.ts';
import { nodeAt } from '#core/model/site.ts';
import { MAX_TITLE_LENGTH } from '#core/model/page-fields.ts';
import { textIn } from '#core/model/texts.ts';
import { InMenusTick } from '../../fields/in-menus-tick.tsx';
import { DraftField } from '../../fields/draft-field.tsx';
import { menuName } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { FrameFields } from './frame-fields.tsx';
import { reasonFor } from './menu-reasons.ts';
import { MenuSheet } from './menu-sheet.tsx';

/** The Menus lens: in which menus the page stands, or why not; and one menu of the site as visitors have it. */
export function MenusPanel({ page }: { readonly page: PageId | null }) {
  const { site, setBeside } = useWorkbench();
  const { menus } = site.settings;
  const [chosen, choose] = useState<MenuId | null>(null);
  const menu = menus.find(({ id }) => id === chosen) ?? menus[0];
  return (
    <div className="flex flex-col gap-4">
      {page !== null && <PageInMenus key={page} page={page} onChoose={choose} />}
      <section
        aria-label="One menu"
        className="flex flex-col gap-3 border-t border-rule pt-4 first:border-0 first:pt-0"
      >
        {menu ? (
          <>
            {menus.length > 1 && (
              <Choice label="Menu" value={menu.id} onChange={(event) => choose(event.target.value as MenuId)}>
                {menus.map((one) => (
                  <option key={one.id} value={one.id}>
                    {menuName(one)}
                    {one.isByHand ? ', arranged by hand' : ''}
                  </option>
                ))}
              </Choice>
            )}
            <MenuSheet key={menu.id} menu={menu} page={page} />
          </>
        ) : (
          <>
            <p className="text-quiet">The site has no menu yet. The first one can follow the tree by itself.</p>
            <div>
              <Button look="main" onClick={() => setBeside({ kind: 'menus', id: null })}>
                Add a menu
              </Button>
            </div>
          </>
        )}
      </section>
    </div>
  );
}

function PageInMenus({ page, onChoose }: { readonly page: PageId; readonly onChoose: (menu: MenuId) => void }) {
  const { site, store, mayEdit } = useWorkbench();
  const node = nodeAt(site, page);
  const { language, menus } = site.settings;
  return (
    <fieldset disabled={!mayEdit} className="flex flex-col gap-3">
      <h2 className="font-display text-title leading-tight font-semibold">{textIn(node.title, language)}</h2>
      <ul aria-label="In the menus" className="divide-y divide-rule border-y border-rule">
        {menus.map((menu) => (
          <PageInMenu key={menu.id} menu={menu} page={page} onChoose={() => onChoose(menu.id)} />
        ))}
      </ul>
      <InMenusTick page={page} />
      <DraftField
        label="Menu label"
        saved={textIn(node.label, language)}
        placeholder={textIn(node.title, language)}
        longest={MAX_TITLE_LENGTH}
        hint="Shorter, for menus and trails. Empty: the title."
        onSave={(text) => store.apply([{ name: 'page.set', page, fields: { label: { [language]: text } } }])}
      />
      <FrameFields page={page} />
    </fieldset>
  );
}

/** Whether a page stands in a menu, and why not. */
function PageInMenu({
  menu,
  page,
  onChoose,
}: {
  readonly menu: Menu;
  readonly page: PageId;
  readonly onChoose: () => void;
}) {
  const { site, derived } = useWorkbench();
  const table = menuTableOf(site, menu);
  const number = table.numbers.get(entryOf(page));
  return (
    <li className="py-1.5">
      <p className="flex items-baseline gap-2">
        <button
          type="button"
          onClick={onChoose}
          className="min-w-0 flex-1 truncate text-left font-medium hover:underline"
        >
          {menuName(menu)}
        </button>
        <span className={number === undefined ? 'text-quiet' : 'font-mono font-medium text-accent'}>
          {number ?? 'not in it'}
        </span>
      </p>
      {number === undefined && (
        <p className="text-small text-quiet">
          {reasonFor(site, menu, table.answerAt(derived.outline.rowOf.get(page)!), page)}
        </p>
      )}
    </li>
  );
}
