import { momentWords } from '#core/model/moment-words.ts';
import { useDeferredValue, useMemo } from 'react';
import { type Finder, accessReason, decidingPage } from '#core/derive/access.ts';
import { menuTable } from '#core/derive/menu-table.ts';
import { reasonWords } from '#core/derive/reason-words.ts';
import { type VisitorView, visitorView } from '#core/derive/visitor-view.ts';
import { ruleOf } from '#core/model/access.ts';
import { EVERYONE, closureOf } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { entryOf } from '#core/model/menu.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { ANSWER_LOOKS, ANSWER_WORDS, type Answer, accessOf, answerAt, audiencesOf } from '../../tree/access-of.ts';
import { MENU_WORDS, menuName } from '../../tree/words.ts';
import { useRuleChanges } from '../../api/find.ts';
import { useNow } from '../../ui/use-now.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const STANDS_IN_WORDS =
  'Search engines are not offered it, and it is not in the sitemap file: it replaces a built-in page.';

/** In which menus a visitor has the page; where in none, why not in the first of them. */
function listedWords(site: Site, view: VisitorView, row: number): string {
  const { derived, visitor, isSignedIn } = view;
  const entry = entryOf(derived.outline.nodes[row]!.id);
  const tables = site.settings.menus.map((menu) => menuTable(site, menu, derived, { belongs: visitor, isSignedIn }));
  const lists = tables.filter(({ numbers }) => numbers.has(entry)).map(({ menu }) => menuName(menu));
  if (lists.length > 0) return `in the ${lists.join(' and the ')}`;
  const answer = tables[0]?.answerAt(row) ?? 'in';
  return answer === 'in' ? 'in no menu' : `in no menu: ${MENU_WORDS[answer].toLowerCase()}`;
}

/** The five answers for a page: for each audience whether it opens, stands in menus, and is found; then what machines are told. */
export function PageAnswers({ page }: { readonly page: PageId }) {
  const { site, derived, moment, shown } = useWorkbench();
  const row = derived.outline.rowOf.get(page)!;
  const { table, heldBack } = accessOf(site, moment);
  const clock = useNow();
  const now = moment ?? clock;
  const views = useAudienceViews();
  const changes = useRuleChanges(site.key, shown.revision);
  const setWords = (by: PageId | null): string => {
    const change = by === null ? undefined : changes?.get(by);
    return change ? `Set by ${change.by} on ${momentWords(change.at, site.settings.timeZone)}.` : '';
  };
  const node = derived.outline.nodes[row]!;
  const isPage = node.type === 'page';
  const standsIn = ruleOf(node).standsIn !== null;
  const heldBy = (finder: Finder) => {
    const by = heldBack[finder][row]!;
    if (by === -1) return null;
    return by === row ? 'its own rule' : `‘${textIn(derived.outline.nodes[by]!.title, site.settings.language)}’`;
  };
  const listed = (id: string, answer: Answer): string => {
    const view = views.get(id);
    const at = view?.derived.outline.rowOf.get(page);
    if (!view || at === undefined) return '';
    const menu = listedWords(site, view, at);
    if (!isPage || answer !== 'open' || standsIn)
      return `${menu}${view.locked[at] === 1 ? ', with a lock' : ''}; not found by search`;
    const by = heldBy('search');
    return `${menu}; ${by === null ? 'found by the site’s search' : `not found by search, because of ${by}`}`;
  };
  return (
    <section aria-label="Who can open it">
      <h3 className="mb-1 font-display text-large font-semibold">
        Who can open it{moment !== null && `, on ${momentWords(moment, site.settings.timeZone)}`}
      </h3>
      <ul className="divide-y divide-rule border-y border-rule">
        {audiencesOf(site).map(({ id, name }, bit) => {
          const answer = answerAt(table, row, bit);
          const reason = accessReason(site, page, closureOf(site.settings.audiences, [id]), now);
          return (
            <li key={id} className="py-1.5">
              <p className="flex items-baseline gap-2">
                <span className="min-w-0 flex-1 truncate font-medium">{name}</span>
                <span className={ANSWER_LOOKS[answer]}>{ANSWER_WORDS[answer]}</span>
              </p>
              <p className="text-small text-quiet">
                {reasonWords(site, page, reason)} {setWords(decidingPage(reason))}
              </p>
              <p className="text-small text-quiet first-letter:uppercase">{listed(id, answer)}</p>
            </li>
          );
        })}
      </ul>
      {isPage && (
        <p className="mt-2 text-small">
          {standsIn ? STANDS_IN_WORDS : enginesWords(answerAt(table, row, 0) === 'open', heldBy('engines'))}
        </p>
      )}
    </section>
  );
}

/** The site as each audience has it. It follows a moment after an edit, so that no edit waits for it. */
function useAudienceViews() {
  const { site, moment } = useWorkbench();
  const shown = useDeferredValue(site);
  const clock = useNow();
  const now = moment ?? clock;
  return useMemo(
    () =>
      new Map(
        audiencesOf(shown).map(({ id }) => [
          id as string,
          visitorView(shown, closureOf(shown.settings.audiences, [id]), now, id !== EVERYONE),
        ]),
      ),
    [shown, now],
  );
}

function enginesWords(isOpen: boolean, heldBy: string | null): string {
  if (!isOpen)
    return 'Search engines are not offered it, and it is not in the sitemap file, since not everyone can open it.';
  return heldBy === null
    ? 'Search engines are offered it, and it is in the sitemap file.'
    : `Search engines are asked not to index it, and it is not in the sitemap file, because of ${heldBy}.`;
}
