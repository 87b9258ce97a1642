import { useEffect, useMemo, useState } from 'react';
import { derivedForEach, visitorOf } from '#core/derive/derived-for-each.ts';
import { accessTable } from '#core/derive/access.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { pagesByLayout } from '#core/derive/layouts.ts';
import { menuTable } from '#core/derive/menu-table.ts';
import { type MenuFit, SCREENS, type ScreenName, menuFit } from '#core/drawing/menu-fit.ts';
import { EVERYONE } from '#core/model/audience.ts';
import { MENU_SLOTS, type MenuSlot } from '#core/model/layout.ts';
import type { Menu } from '#core/model/menu.ts';
import type { MenuEntry } from '#core/derive/menu.ts';
import { useNow } from '../../ui/use-now.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { fontLoaded, measureText } from './measure-text.ts';

const PLACES: Readonly<Record<MenuSlot, string>> = {
  utility: 'above the header',
  header: 'in the header',
  side: 'beside the text',
  footer: 'in the footer',
};
const SCREEN_WORDS: Readonly<Record<ScreenName, string>> = Object.fromEntries(
  SCREENS.map(({ name, width }) => [name, `${name} screens (${width} pixels)`]),
) as Record<ScreenName, string>;

/** Whether the labels of a menu have room, once there is the font to measure them in. */
export function MenuFitPart(props: { readonly menu: Menu }) {
  const [isLoaded, setLoaded] = useState(false);
  useEffect(() => {
    let isThere = true;
    void fontLoaded().then(() => isThere && setLoaded(true));
    return () => {
      isThere = false;
    };
  }, []);
  return isLoaded && <Measured {...props} />;
}

/** Whether the labels of a menu have room where layouts show it, for visitors who are not signed in. */
function Measured({ menu }: { readonly menu: Menu }) {
  const { site } = useWorkbench();
  const now = useNow();
  const users = useMemo(() => pagesByLayout(site), [site]);
  const places = [
    ...new Set(
      site.settings.layouts
        .filter(({ id }) => (users.get(id) ?? []).length > 0)
        .flatMap((layout) => MENU_SLOTS.filter((slot) => layout.menus[slot] === menu.id)),
    ),
  ];
  const fits = useMemo(() => {
    const everyone = visitorOf(site, EVERYONE);
    const [derived] = derivedForEach(site, [everyone], now);
    const { locked, asks } = accessTable(derivedOf(site).outline, site.settings, [everyone.belongs], now);
    const table = menuTable(site, menu, derived!, everyone);
    const lockWords = ({ page }: MenuEntry) => {
      const row = page === null ? undefined : derived!.outline.rowOf.get(page);
      if (row === undefined || locked[row] === 0) return '';
      return asks[row] === 1 ? ' · asks for a passphrase' : ' · sign in first';
    };
    return new Map(
      places.map((slot) => [
        slot,
        table.sections.map((section) => menuFit(slot, table.entries(section), measureText, lockWords)),
      ]),
    );
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the list of places is made anew each time; its words are not
  }, [site, menu, now, places.join()]);
  if (places.length === 0)
    return (
      <p className="text-small text-attention">
        No layout that pages take shows this menu. Choose a place under Layouts.
      </p>
    );
  return (
    <section aria-label="Whether it fits" className="flex flex-col gap-2 rounded-md border border-rule px-3 py-2">
      <p className="font-medium">Whether it fits</p>
      {places.map((slot) => (
        <PlaceFits key={slot} place={PLACES[slot]} fits={fits.get(slot) ?? []} />
      ))}
    </section>
  );
}

function PlaceFits({ place, fits }: { readonly place: string; readonly fits: readonly (readonly MenuFit[])[] }) {
  const { site } = useWorkbench();
  const lines = SCREENS.flatMap(({ name }) => {
    const here = fits.flatMap((one) => one.filter(({ screen }) => screen === name));
    const rows = Math.max(1, ...here.map((one) => one.rows));
    const next = here.find((one) => one.firstInNextRow !== null)?.firstInNextRow;
    const wide = new Map(here.flatMap((one) => one.wide.map((label) => [label.entry, label])));
    return [
      ...(rows > 1
        ? [
            {
              key: `${name} rows`,
              words: `On ${SCREEN_WORDS[name]} it takes ${rows} rows: ‘${next}’ begins the second.`,
            },
          ]
        : []),
      ...[...wide.values()].map((label) => ({
        key: `${name} ${label.entry}`,
        words: `On ${SCREEN_WORDS[name]} ‘${label.text}’ takes ${label.lines} lines${label.fitting === null ? '; a shorter word is needed.' : `; ‘${label.fitting}’ would take one.`}`,
      })),
    ];
  });
  return (
    <div>
      <p className="text-small text-quiet first-letter:uppercase">{place}</p>
      {lines.length === 0 ? (
        <p className="text-small">Every label has room, on wide and narrow screens.</p>
      ) : (
        <ul className="list-disc pl-4 text-small" lang={site.settings.language}>
          {lines.map(({ key, words }) => (
            <li key={key}>{words}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
