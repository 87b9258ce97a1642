import { memo, useMemo } from 'react';
import { audienceChanges } from '#core/changes/audience-changes.ts';
import { type FinderChange, finderChanges } from '#core/changes/finder-changes.ts';
import { menusForAudiences, whatChanges } from '#core/changes/what-changes.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { leadsTo } from '#core/derive/menu.ts';
import { menuTableOf } from '#core/derive/menu-table.ts';
import { shownTrail } from '#core/derive/shown-trail.ts';
import { EVERYONE, SIGNED_OUT_NAME } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { entryOf } from '#core/model/menu.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { forbiddenIn, forbiddenWords } from '#core/people/forbidden.ts';
import { refusalWords } from '../api/site-store.ts';
import { accessOf, answerAt, audiencesOf } from '../tree/access-of.ts';
import { MENU_WORDS, addresses, menuName, pages } from '../tree/words.ts';
import { useNow } from '../ui/use-now.ts';
import { audienceMenuWords, menuChangeWords } from './menu-change-words.ts';
import { usePeopleChanges } from './people-changes.ts';
import { useWorkbench } from './workbench-context.tsx';

const sentence = (words: string): string => `${words.charAt(0).toUpperCase()}${words.slice(1)}.`;

/** What the sitemap file, or the site's search, gains and loses; false where nothing. */
function finderWords(name: string, { gains, loses }: FinderChange): string | false {
  const parts = [
    gains.length > 0 && `${name} gains ${pages(gains.length)}`,
    loses.length > 0 && `${gains.length > 0 ? 'and ' : `${name} `}loses ${pages(loses.length)}`,
  ].filter(Boolean);
  return parts.length > 0 && parts.join(' ');
}

/** Along the bottom: the selected page as visitors will have it; and what a change does while it is being chosen. */
export const TrailStrip = memo(function TrailStrip() {
  const { site, selection, preview, powers, guest } = useWorkbench();
  const forbidden = useMemo(
    () => (preview && guest === null ? forbiddenIn(site, powers, preview) : null),
    [site, powers, preview, guest],
  );
  const after = useMemo(() => (preview && preview.length > 0 ? applyOperations(site, preview) : null), [site, preview]);
  // What is being typed or dragged is what the strip is about; else the selected page.
  const first = preview?.[0];
  const isOfPage = first?.name === 'page.add' || first?.name === 'page.move' || first?.name === 'page.set';
  const page = isOfPage ? first.page : selection.active;
  return (
    <footer
      aria-label="Trail"
      className="flex min-h-strip items-center overflow-hidden gap-x-5 gap-y-1 border-t border-rule bg-raised px-4 py-1.5 text-small whitespace-nowrap max-md:flex-wrap short:flex-nowrap compact:min-h-0 compact:gap-x-3 compact:px-2 compact:py-1"
    >
      {page === null ? (
        <p className="text-quiet">Select a page to see its trail, its address and its place in menus.</p>
      ) : forbidden ? (
        <p className="text-danger">{forbiddenWords(powers, forbidden)}</p>
      ) : after === null ? (
        <Now site={site} page={page} />
      ) : after.ok ? (
        <After before={site} after={after.site} page={page} />
      ) : (
        <p className="text-danger">{refusalWords(after, site)}</p>
      )}
    </footer>
  );
});

function Trail({ site, page }: { readonly site: Site; readonly page: PageId }) {
  const { steps, leadIn, separator } = shownTrail(site, page);
  const shown = steps.filter(({ isFolded }) => !isFolded);
  if (shown.length === 0) return <p className="shrink-0 text-quiet">No trail</p>;
  return (
    <p className="min-w-24 shrink truncate">
      <span className="sr-only">Trail: </span>
      {leadIn !== '' && <span className="mr-1.5 text-quiet">{leadIn}</span>}
      {shown.map((step, index) => (
        <span key={step.page}>
          {index > 0 && <span className="px-1.5 text-quiet">{separator}</span>}
          {index === 1 && shown.length < steps.length && <span className="text-quiet">… {separator} </span>}
          <span
            className={step.isCurrent ? 'font-semibold' : step.address === null ? 'text-quiet italic' : ''}
            title={step.address === null && !step.isCurrent ? 'Plain text, not a link' : undefined}
          >
            {step.text}
          </span>
        </span>
      ))}
    </p>
  );
}

function Now({ site, page }: { readonly site: Site; readonly page: PageId }) {
  const { moment, guest } = useWorkbench();
  const derived = derivedOf(site);
  const row = derived.outline.rowOf.get(page);
  if (row === undefined) return null;
  const by = derived.hiddenBy[row]!;
  const address = derived.addresses[row] ?? leadsTo(derived, row);
  return (
    <>
      <Trail site={site} page={page} />
      {address !== null && <p className="min-w-0 truncate font-mono">{address}</p>}
      {(guest === null || by !== -1) && (
        <p className={by === -1 ? 'text-quiet' : 'text-attention'}>
          {by === -1
            ? openTo(site, row, moment)
            : by === row
              ? 'Hidden: nobody can open it'
              : `Hidden by ‘${textIn(derived.outline.nodes[by]!.title, site.settings.language)}’`}
        </p>
      )}
      {guest === null && <p className="min-w-0 truncate text-quiet">{menuWords(site, page, row)}</p>}
    </>
  );
}

/** The menus that the page stands in, with its numbers; where in none, why not in the first. */
function menuWords(site: Site, page: PageId, row: number): string {
  const tables = site.settings.menus.map((menu) => menuTableOf(site, menu));
  const numbers = tables.flatMap(({ menu, numbers: all }) => {
    const number = all.get(entryOf(page));
    return number === undefined ? [] : [`${menuName(menu)} ${number}`];
  });
  if (numbers.length > 0) return numbers.join(', ');
  const [first] = tables;
  if (!first) return 'The site has no menu';
  const answer = first.answerAt(row);
  return `Not in the ${menuName(first.menu)}: ${answer === 'in' ? '' : MENU_WORDS[answer].toLowerCase()}`;
}

/** Whom the page is open to, in words. */
function openTo(site: Site, row: number, moment: number | null): string {
  const { table } = accessOf(site, moment);
  const all = audiencesOf(site).map(({ name }, bit) => ({ name, answer: answerAt(table, row, bit) }));
  const doesPass = ({ answer }: (typeof all)[number]) => answer === 'open' || answer === 'asks';
  const [everyone, ...others] = all;
  if (everyone && doesPass(everyone)) {
    const condition = everyone.answer === 'asks' ? ' with the passphrase' : '';
    const shut = others.filter((one) => !doesPass(one));
    if (shut.length === 0) return `Open to everyone${condition}`;
    if (shut.length === others.length) return `Open to ${SIGNED_OUT_NAME}${condition}`;
    return `Open to everyone but ${shut.map(({ name }) => name).join(', ')}${condition}`;
  }
  const names = others
    .filter(doesPass)
    .map(({ name, answer }) => (answer === 'asks' ? `${name} with the passphrase` : name));
  return names.length === 0
    ? moment === null
      ? 'Open to nobody now'
      : 'Open to nobody then'
    : `Open to ${names.join(', ')}`;
}

const NO_ENTRIES = { gains: [], loses: [] };
const wordsOfTrail = (site: Site, page: PageId): string =>
  shownTrail(site, page)
    .steps.map(({ text }) => text)
    .join(' › ');

/** The trail as it is now, where it will be another one; only where there is room. */
function TrailBefore({ before, after, page }: { readonly before: Site; readonly after: Site; readonly page: PageId }) {
  const now = wordsOfTrail(before, page);
  if (!maybeNodeAt(after, page) || now === wordsOfTrail(after, page)) return null;
  return (
    <p className="min-w-0 shrink-3 truncate text-quiet line-through max-xl:sr-only" title={`Trail before: ${now}`}>
      {now}
    </p>
  );
}

function After({ before, after, page }: { readonly before: Site; readonly after: Site; readonly page: PageId }) {
  const changes = useMemo(() => whatChanges(before, after), [before, after]);
  const now = useNow();
  const forWhom = useMemo(() => audienceChanges(before, after, now), [before, after, now]);
  const forMenus = useMemo(
    () => (forWhom.length === 0 ? [] : menusForAudiences(before, after, now)),
    [forWhom, before, after, now],
  );
  const forPeople = usePeopleChanges(before, after);
  const finders = useMemo(() => finderChanges(before, after, now), [before, after, now]);
  const audiences = audiencesOf(after);
  const own = changes.addresses.find((one) => one.page === page);
  const back = changes.added.filter((id) => before.nodes.has(id)).length;
  const said = [
    changes.addresses.length > 0 && addresses(changes.addresses.length),
    changes.removed.length > 0 && `${pages(changes.removed.length)} removed`,
    back > 0 && `${pages(back)} put back`,
    changes.added.length > back && `${pages(changes.added.length - back)} added`,
    changes.closed.length > 0 && `${pages(changes.closed.length)} that nobody can open any more`,
    changes.opened.length > 0 && `${pages(changes.opened.length)} can be opened again`,
    ...forWhom.map(({ audience, gains, loses, deadLinks }) => {
      const name =
        audience === EVERYONE ? 'everyone' : (audiences.find((one) => one.id === audience)?.name ?? 'others');
      return [
        gains.length > 0 && `${pages(gains.length)} ${gains.length === 1 ? 'opens' : 'open'} to ${name}`,
        loses.length > 0 && `${pages(loses.length)} ${loses.length === 1 ? 'closes' : 'close'} to ${name}`,
        ...audienceMenuWords(forMenus.find((one) => one.audience === audience) ?? NO_ENTRIES),
        deadLinks.length > 0 &&
          (deadLinks.length === 1
            ? `a link leads ${name} to a closed page`
            : `${deadLinks.length} links lead ${name} to closed pages`),
      ]
        .filter(Boolean)
        .join(', ');
    }),
    ...forPeople,
    finderWords('the sitemap file', finders.engines),
    // Whom search finds for follows from who can open; it is news only where it is held back, or no more.
    forWhom.length === 0 && finderWords('the site’s search', finders.search),
    ...menuChangeWords(before, after, page, changes.menus),
  ].filter((words) => words !== false);
  return (
    <div role="status" className="flex min-w-0 flex-1 items-center gap-x-5 gap-y-1 max-md:flex-wrap">
      <p className="rounded-sm bg-attention-soft px-1.5 font-semibold text-attention">What changes</p>
      {maybeNodeAt(before, page) && <TrailBefore before={before} after={after} page={page} />}
      {maybeNodeAt(after, page) && <Trail site={after} page={page} />}
      {own && (
        <p className="min-w-0 truncate font-mono">
          <span className="text-quiet line-through">{own.before}</span>
          <span className="px-1.5 text-quiet">→</span>
          <span className="font-semibold">{own.after}</span>
        </p>
      )}
      <p className="min-w-0 shrink-[0.2] truncate" title={said.join(', ')}>
        {said.length === 0 ? 'No address changes, and nobody gains or loses a page.' : sentence(said.join(', '))}
      </p>
    </div>
  );
}
