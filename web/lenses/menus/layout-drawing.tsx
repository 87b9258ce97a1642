import type { ReactNode } from 'react';
import { menuTableOf } from '#core/derive/menu-table.ts';
import { shownTrail } from '#core/derive/shown-trail.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Layout, MenuSlot } from '#core/model/layout.ts';
import type { MenuId } from '#core/model/menu.ts';
import { type Site, ancestorsOf, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { menuName } from '../../tree/words.ts';
import { SLOT_WORDS, useMenuPlace } from './menu-place.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The widths of a screen on a desk and of a telephone, in pixels of the page: the two are drawn to one scale. */
const DESK = 1280;
const TELEPHONE = 390;
const MAX_ENTRIES = 6;

/**
 * The layout as it stands around one of its pages, on a desk and on a telephone. Where things stand is as the visitors' side has it
 * (`server/live/render-page.ts` and its style sheet): on a telephone menus fold, and what is beside the text follows it.
 */
export function LayoutDrawing({ layout, sample }: { readonly layout: Layout; readonly sample: PageId | null }) {
  const { site } = useWorkbench();
  const title = sample === null ? 'A page' : textIn(maybeNodeAt(site, sample)?.title ?? {}, site.settings.language);
  const parts = { layout, site, sample, title };
  return (
    <figure className="m-0">
      <div className="flex items-start gap-3 text-[9px] leading-[1.35]">
        <Sheet width={DESK} role="group" name="On a desk">
          <MenuPlace {...parts} slot="utility" className="justify-end" />
          <Header {...parts} />
          <div className="flex min-h-0 flex-1">
            <Text {...parts} />
            <MenuPlace {...parts} slot="side" className="flex-col items-start! gap-y-0.5 border-l border-rule" />
          </div>
          <Footer {...parts} />
        </Sheet>
        <Sheet width={TELEPHONE} role="img" name="On a telephone">
          <Header {...parts} isFolded />
          <Text {...parts} />
          <Slot {...parts} slot="side" className="flex-col border-t border-rule" most={2} />
          <Footer {...parts} isFolded />
        </Sheet>
      </div>
      <figcaption className="mt-1 text-small text-quiet">
        As it stands around ‘{title}’, to scale. Choose the menu of a place in the drawing, or drag one there.
      </figcaption>
    </figure>
  );
}

interface Parts {
  readonly layout: Layout;
  readonly site: Site;
  readonly sample: PageId | null;
  readonly title: string;
}

function Sheet({
  width,
  role,
  name,
  children,
}: {
  readonly width: number;
  readonly role: 'group' | 'img';
  readonly name: string;
  readonly children: ReactNode;
}) {
  return (
    <div role={role} aria-label={name} className="min-w-0" style={{ flex: `${width} 1 0` }}>
      <div className="flex h-52 flex-col overflow-hidden rounded-md border border-edge bg-raised">{children}</div>
    </div>
  );
}

/** The place of a menu on the desk: the menu that it has, another by choosing, none, or one that is dragged here. */
function MenuPlace({ className = '', ...parts }: Parts & { readonly slot: MenuSlot; readonly className?: string }) {
  const { layout, site, slot } = parts;
  const { menus } = site.settings;
  const { isOver, drop, put } = useMenuPlace(slot);
  const isTaken = menus.some(({ id }) => id === layout.menus[slot]);
  return (
    <div
      ref={drop}
      className={`relative flex min-h-6 min-w-0 outline-offset-[-2px] outline-accent focus-within:outline-2 hover:outline-1 ${isOver ? 'outline-2' : ''} ${slot === 'side' ? 'mt-3 w-[26%] shrink-0' : ''}`}
    >
      {isTaken ? (
        <Slot {...parts} className={`min-w-0 flex-1 items-center ${className}`} />
      ) : (
        <span className="m-0.5 flex-1 truncate rounded-sm border border-dashed border-edge px-1 text-quiet">
          {SLOT_WORDS[slot]}: no menu
        </span>
      )}
      {/* Over what is drawn: what it says itself is not seen. */}
      <select
        aria-label={SLOT_WORDS[slot]}
        title={SLOT_WORDS[slot]}
        value={layout.menus[slot] ?? ''}
        onChange={(event) => put(event.target.value === '' ? null : (event.target.value as MenuId))}
        className="absolute inset-0 size-full cursor-pointer appearance-none bg-transparent text-small text-transparent forced-color-adjust-none outline-none"
      >
        <option value="" className="bg-raised text-ink">
          No menu
        </option>
        {menus.map((menu) => (
          <option key={menu.id} value={menu.id} className="bg-raised text-ink">
            {menuName(menu)}
          </option>
        ))}
      </select>
    </div>
  );
}

/** The menu of a slot with the entries that it has; nothing where there is none. */
function Slot({
  layout,
  site,
  sample,
  slot,
  className = '',
  most = MAX_ENTRIES,
}: Parts & { readonly slot: MenuSlot; readonly className?: string; readonly most?: number }) {
  const menu = site.settings.menus.find(({ id }) => id === layout.menus[slot]);
  if (!menu) return null;
  const section = sample === null ? null : (ancestorsOf(site, sample).at(-1)?.id ?? sample);
  const entries = menuTableOf(site, menu).entries(section);
  return (
    <div title={menuName(menu)} className={`flex gap-x-1.5 overflow-hidden bg-accent-soft px-1.5 py-0.5 ${className}`}>
      {entries.length === 0 && <span className="truncate text-quiet">{menuName(menu)}: no entry</span>}
      {entries.slice(0, most).map(({ id, text }) => (
        <span key={id} className="max-w-full shrink-0 truncate">
          {text}
        </span>
      ))}
      {entries.length > most && <span className="text-quiet">…</span>}
    </div>
  );
}

function Header({ isFolded = false, ...parts }: Parts & { readonly isFolded?: boolean }) {
  const { layout, site } = parts;
  const { header } = layout;
  if (header === 'none') return null;
  const name = <span className="truncate px-1.5 font-display font-semibold">{site.settings.name}</span>;
  const hasPlace = header !== 'title';
  const hasMenu = hasPlace && layout.menus.header !== null;
  const isInRow = header === 'slim' && !isFolded;
  return (
    <div
      className={`flex shrink-0 border-b border-rule ${isInRow ? 'items-center' : 'flex-col'} ${header === 'tall' ? 'min-h-16 justify-end bg-sunken' : header === 'slim' ? 'py-0.5' : 'pt-1.5'}`}
    >
      <span className="flex min-w-0 items-center justify-between">
        {name}
        {isFolded && hasMenu && <span aria-hidden className="mr-1.5 h-2 w-3 shrink-0 border-y-2 border-ink" />}
      </span>
      {header === 'tall' && <span className="mx-1.5 mb-1 h-1 w-1/3 rounded-full bg-edge" />}
      {hasPlace && !isFolded && <MenuPlace {...parts} slot="header" />}
    </div>
  );
}

/** The trail, the title and lines of text, with the way on to the pages before and after. */
function Text({ layout, site, sample, title }: Parts) {
  const trail = sample === null ? null : shownTrail(site, sample);
  const { steps = [], leadIn = '', separator = '' } = trail ?? {};
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col gap-1 p-1.5">
      {steps.length > 0 && (
        <span className="truncate text-quiet">
          {leadIn} {steps.map(({ text }) => text).join(` ${separator} `)}
        </span>
      )}
      <span className="truncate text-small font-semibold">{title}</span>
      {['w-full', 'w-11/12', 'w-full', 'w-2/3'].map((width, at) => (
        <span key={at} className={`h-1 shrink-0 rounded-full bg-rule ${width}`} />
      ))}
      {layout.hasTurns && (
        <span className="mt-1 flex justify-between text-quiet">
          <span>←</span>
          <span>→</span>
        </span>
      )}
    </div>
  );
}

function Footer({ isFolded = false, ...parts }: Parts & { readonly isFolded?: boolean }) {
  const { layout, site } = parts;
  if (!layout.hasFooter) return null;
  const facts = site.settings.facts.filter(({ inFooter, text }) => inFooter && text !== '');
  return (
    <div className="shrink-0 border-t border-rule bg-paper">
      {isFolded ? (
        <Slot {...parts} slot="footer" className="flex-wrap" most={3} />
      ) : (
        <MenuPlace {...parts} slot="footer" className="flex-wrap" />
      )}
      <span className="block truncate px-1.5 py-0.5 text-quiet">
        {[site.settings.name, ...facts.map(({ text }) => text)].join(' · ')}
      </span>
    </div>
  );
}
