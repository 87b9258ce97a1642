import { SCREEN_WIDTHS, type ScreenWidth } from '#core/drawing/screen-widths.ts';
import { useEffect, useMemo, useState } from 'react';
import { Link, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { derivedOf } from '#core/derive/derived.ts';
import { toSiteKey } from '#core/model/ids.ts';
import { type Look, SCREENS, type Screen } from '#core/model/look.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { wordsOfFault } from '../api/client.ts';
import { useMayOnSite } from '../api/people.ts';
import { useTreeOf } from '../api/sites.ts';
import { Notice } from '../ui/notice.tsx';
import { Wordmark } from '../ui/wordmark.tsx';
import { type CarriedLooks, MOST_BESIDE, looksToCompare } from './looks-to-compare.ts';
import { OneLook } from './one-look.tsx';

/** The page that shows all that can stand on pages, below a walk. */
const SAMPLE = '/~sample';
const FIELD = 'h-8 min-w-0 max-w-72 rounded-md border border-edge bg-raised px-2';

/** Looks side by side on pages of the site. */
export function LooksPage() {
  const { site: key = '' } = useParams();
  const { site, fault } = useTreeOf(toSiteKey(key));
  if (fault) return <Notice>{wordsOfFault(fault)}</Notice>;
  if (!site) return <p className="p-6 text-quiet">Loading …</p>;
  return <Looks site={site} />;
}

function Looks({ site }: { readonly site: Site }) {
  const { state } = useLocation();
  const navigate = useNavigate();
  const mayEdit = useMayOnSite(site.key, 'look');
  const [parameters, setParameters] = useSearchParams();
  const all = useMemo(() => looksToCompare(site.settings.look, state), [site.settings.look, state]);
  const path = parameters.get('page') ?? '/';
  const width = oneOf(Object.keys(SCREEN_WIDTHS) as ScreenWidth[], parameters.get('width')) ?? 'tablet';
  const screen: Screen = oneOf(SCREENS, parameters.get('screen')) ?? 'light';
  const isSample = path === SAMPLE;
  const [shown, setShown] = useState<ReadonlySet<number>>(
    () => new Set(all.map((_, at) => at).slice(0, isSample ? 1 : MOST_BESIDE)),
  );
  useEffect(() => {
    document.title = `Looks – ${site.settings.name} – Spur`;
  }, [site.settings.name]);
  const set = (name: string, value: string) =>
    setParameters(
      (before) => {
        before.set(name, value);
        return before;
      },
      { replace: true, state: state as unknown },
    );
  const take = (taken: Look) =>
    void navigate(`/sites/${site.key}?lens=menus&beside=look`, { state: { taken } satisfies CarriedLooks });
  return (
    <div className="flex h-full flex-col">
      <header className="flex min-h-bar flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule bg-raised px-4 py-1">
        <Link to={`/sites/${site.key}?lens=menus&beside=look`} aria-label="Spur, back to the look">
          <Wordmark size={20} />
        </Link>
        <h1 className="font-medium">Looks of {site.settings.name}</h1>
        <div className="ml-auto flex flex-wrap items-center gap-2 text-small">
          <PageChoice site={site} path={path} onSet={(page) => set('page', page)} />
          <select
            aria-label="Width"
            value={width}
            onChange={(event) => set('width', event.target.value)}
            className={FIELD}
          >
            <option value="telephone">Telephone</option>
            <option value="tablet">Tablet</option>
            <option value="desktop">Desktop</option>
          </select>
          <select
            aria-label="Screens"
            value={screen}
            onChange={(event) => set('screen', event.target.value)}
            className={FIELD}
          >
            <option value="light">Light screens</option>
            <option value="dark">Dark screens</option>
          </select>
        </div>
      </header>
      <fieldset className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule bg-paper px-4 py-1.5">
        <legend className="sr-only">Side by side</legend>
        {all.map(({ name }, at) => (
          <label key={name} className="inline-flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-accent"
              checked={shown.has(at)}
              disabled={shown.has(at) ? shown.size === 1 : shown.size === MOST_BESIDE}
              onChange={() =>
                setShown(
                  (before) => new Set([...before].filter((one) => one !== at).concat(before.has(at) ? [] : [at])),
                )
              }
            />
            {name}
          </label>
        ))}
        <span className="text-small text-quiet">Up to three at once. Nothing changes until you take one.</span>
      </fieldset>
      <main className="relative flex min-h-0 flex-1 max-md:flex-col max-md:overflow-y-auto">
        {all.map(
          (one, at) =>
            shown.has(at) && (
              <OneLook
                key={at}
                site={site}
                named={one}
                width={width}
                screen={screen}
                path={path}
                onGo={(page) => set('page', page)}
                onTake={mayEdit ? take : null}
              />
            ),
        )}
      </main>
    </div>
  );
}

/** The page that the looks are shown on: the sample page, or one of the site. */
function PageChoice({
  site,
  path,
  onSet,
}: {
  readonly site: Site;
  readonly path: string;
  readonly onSet: (path: string) => void;
}) {
  const { outline, addresses } = derivedOf(site);
  const { language } = site.settings;
  const pages = outline.nodes.flatMap(({ type, title }, row) => {
    const address = addresses[row];
    return type === 'page' && address
      ? [{ address, words: '\u2003'.repeat(outline.depth[row]!) + textIn(title, language) }]
      : [];
  });
  const isListed = path === SAMPLE || pages.some(({ address }) => address === path);
  return (
    <select aria-label="Page" value={path} onChange={(event) => onSet(event.target.value)} className={FIELD}>
      <option value={SAMPLE}>Sample page: everything in each scheme</option>
      {!isListed && <option value={path}>{path}</option>}
      {pages.map(({ address, words }) => (
        <option key={address} value={address}>
          {words}
        </option>
      ))}
    </select>
  );
}

const oneOf = <Value extends string>(values: readonly Value[], given: string | null): Value | undefined =>
  values.find((one) => one === given);
