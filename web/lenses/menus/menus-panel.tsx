import { type MenuEntry, labelOf, mainMenuOf } from '#core/derive/menu.ts';
import { MAIN_MENU_DEPTH, type MenuAnswer, menuNumber } from '#core/derive/derived.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { LONGEST_TITLE, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../../fields/draft-field.tsx';

/** The Menus lens: why the page is in the main menu or not, and the menu as it follows from the tree. */
export function MenusPanel({ page }: { readonly page: PageId | null }) {
  const { site } = useWorkbench();
  const entries = mainMenuOf(site);
  return (
    <div className="flex flex-col gap-4">
      {page !== null && <PageInMenus key={page} page={page} />}
      <section aria-labelledby="main-menu" className="border-t border-rule pt-4 first:border-0 first:pt-0">
        <h3 id="main-menu" className="font-display text-large font-semibold">
          Main menu
        </h3>
        <p className="mb-2 text-small text-quiet">
          It follows the tree, {MAIN_MENU_DEPTH} levels deep. Moving a page moves its entry.
        </p>
        {entries.length === 0 ? (
          <p className="text-quiet">It is empty: no page at the top level is in menus.</p>
        ) : (
          <Entries entries={entries} selected={page} />
        )}
      </section>
    </div>
  );
}

function PageInMenus({ page }: { readonly page: PageId }) {
  const { site, store, derived, mayEdit } = useWorkbench();
  const node = nodeAt(site, page);
  const { language } = site.settings;
  const row = derived.outline.rowOf.get(page)!;
  const number = menuNumber(derived, row);
  return (
    <fieldset disabled={!mayEdit} className="flex flex-col gap-3">
      <h2 className="font-display text-title leading-tight font-semibold">{textIn(node.title, language)}</h2>
      <p>
        {number !== null
          ? `In the main menu as entry ${number}, ‘${labelOf(site, node)}’.`
          : reasonFor(site, derived.menu[row]!, page)}
      </p>
      <Tick
        label="In menus"
        hint="The tree offers it to menus."
        checked={node.inMenus}
        onChange={(event) => store.apply([{ name: 'page.set', page, fields: { inMenus: event.target.checked } }])}
      />
      <DraftField
        label="Menu label"
        saved={textIn(node.label, language)}
        placeholder={textIn(node.title, language)}
        longest={LONGEST_TITLE}
        hint="Shorter, for menus and trails. Empty: the title."
        onSave={(text) => store.apply([{ name: 'page.set', page, fields: { label: { [language]: text } } }])}
      />
    </fieldset>
  );
}

/** Why the page is not in the main menu, and what would change that. */
function reasonFor(site: Site, answer: MenuAnswer, page: PageId): string {
  const node = nodeAt(site, page);
  switch (answer) {
    case 'off menus':
      return 'Not in the main menu, because the page is off menus.';
    case 'hidden':
      return 'Not in the main menu, because nobody can reach the page: it, or a branch above it, is hidden.';
    case 'closed':
      return 'Not in the main menu of those who may not open the page.';
    case 'for others':
      return 'Not in the main menu of these visitors: its entry is for others.';
    case 'too deep':
      return `Not in the main menu, because that shows ${MAIN_MENU_DEPTH} levels and the page stands deeper.`;
    case 'above not in menu': {
      const above = node.parent === null ? '' : textIn(nodeAt(site, node.parent).title, site.settings.language);
      return `Not in the main menu, because ‘${above}’ above it is not in it.`;
    }
    case 'leads nowhere':
      return 'Not in the main menu, because the page that this link leads to is hidden or gone. Choose another in the Write lens.';
    case 'in':
      return 'In the main menu.';
  }
}

function Entries({ entries, selected }: { readonly entries: readonly MenuEntry[]; readonly selected: PageId | null }) {
  return (
    <ol className="flex flex-col">
      {entries.map((entry, index) => (
        <Entry key={entry.page} entry={entry} number={`${index + 1}`} selected={selected} />
      ))}
    </ol>
  );
}

function Entry({
  entry,
  number,
  selected,
}: {
  readonly entry: MenuEntry;
  readonly number: string;
  readonly selected: PageId | null;
}) {
  const { select } = useWorkbench();
  const isSelected = entry.page === selected;
  return (
    <li>
      <button
        type="button"
        aria-current={isSelected ? 'true' : undefined}
        onClick={() => select({ active: entry.page, chosen: new Set([entry.page]), anchor: entry.page })}
        className={`flex w-full items-baseline gap-2 rounded px-2 py-1 text-left hover:bg-sunken ${isSelected ? 'bg-accent-soft font-medium' : ''}`}
      >
        <span className="w-8 shrink-0 font-mono text-small text-quiet">{number}</span>
        <span className={`min-w-0 truncate ${entry.leadsTo === null ? 'text-quiet' : ''}`}>{entry.text}</span>
        {entry.leadsTo === null && <span className="text-tiny text-quiet">text only</span>}
      </button>
      {entry.entries.length > 0 && (
        <ol className="ml-4">
          {entry.entries.map((below, index) => (
            <Entry key={below.page} entry={below} number={`${number}.${index + 1}`} selected={selected} />
          ))}
        </ol>
      )}
    </li>
  );
}
