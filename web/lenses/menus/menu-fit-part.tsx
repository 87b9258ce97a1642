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
import { TEXT_PIXELS } from '#core/look/style.ts';
import { useLookParts } from '../../api/frames.ts';
import { LookFaces } from '../../fields/look-faces.tsx';
import { useNow } from '../../ui/use-now.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { fontLoaded, measureIn } from './measure-text.ts';

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
  const { site } = useWorkbench();
  const { pair } = site.settings.look;
  const parts = useLookParts();
  const [loaded, setLoaded] = useState<string | null>(null);
  useEffect(() => {
    if (!parts) return;
    let isThere = true;
    void fontLoaded(pair).then(() => isThere && setLoaded(pair));
    return () => {
      isThere = false;
    };
  }, [parts, pair]);
  return (
    <>
      <LookFaces pair={pair} />
      {loaded === pair && <Measured {...props} />}
    </>
  );
}

/** Whether the labels of a menu have room where layouts show it, for visitors who are not signed in. */
function Measured({ menu }: { readonly menu: Menu }) {
  const { site } = useWorkbench();
  const now = useNow();
  const places = useMemo(() => {
    const users = pagesByLayout(site);
    const taken = site.settings.layouts.filter(({ id }) => (users.get(id) ?? []).length > 0);
    return MENU_SLOTS.filter((slot) => taken.some((layout) => layout.menus[slot] === menu.id));
  }, [site, menu]);
  const fits = useMemo(() => {
    const everyone = visitorOf(site, EVERYONE);
    const [derived] = derivedForEach(site, [everyone], now);
    const { locked, asks } = accessTable(derivedOf(site).outline, site.settings, [everyone.belongs], now);
    const table = menuTable(site, menu, derived!, everyone);
    const { pair, size } = site.settings.look;
    const measure = measureIn(pair);
    const lockWords = ({ page }: MenuEntry) => {
      const row = page === null ? undefined : derived!.outline.rowOf.get(page);
      if (row === undefined || locked[row] === 0) return '';
      return asks[row] === 1 ? ' · asks for a passphrase' : ' · sign in first';
    };
    return new Map(
      places.map((slot) => [
        slot,
        table.sections.map((section) => menuFit(slot, table.entries(section), measure, TEXT_PIXELS[size], lockWords)),
      ]),
    );
  }, [site, menu, now, places]);
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
  const screens = SCREENS.map(({ name }) => ({ name, lines: linesFor(fits, name) })).filter(
    ({ lines }) => lines.length > 0,
  );
  return (
    <div>
      <p className="text-small text-quiet first-letter:uppercase">{place}</p>
      {screens.length === 0 && <p className="text-small">Every label fits, on wide and narrow screens.</p>}
      {screens.map(({ name, lines }) => (
        <div key={name} className="mt-1 text-small">
          <p>On {SCREEN_WORDS[name]}</p>
          <ul className="list-disc pl-4">
            {lines.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      ))}
    </div>
  );
}

/** What has no room on a screen, in whatever section, as sentences. */
function linesFor(fits: readonly (readonly MenuFit[])[], screen: ScreenName): string[] {
  const here = fits.flatMap((one) => one.filter((fit) => fit.screen === screen));
  const rows = Math.max(1, ...here.map((one) => one.rows));
  const next = here.find((one) => one.firstInNextRow !== null)?.firstInNextRow;
  const wide = new Map(here.flatMap((one) => one.wide.map((label) => [label.entry, label])));
  return [
    ...(rows > 1 ? [`It takes ${rows} rows: ‘${next}’ begins the second.`] : []),
    ...[...wide.values()].map(
      ({ text, lines, fitting }) =>
        `‘${text}’ takes ${lines} lines${fitting === null ? '; a shorter word is needed.' : `; ‘${fitting}’ would take one.`}`,
    ),
  ];
}
