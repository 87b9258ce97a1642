import type { ReactNode } from 'react';
import type { LiveEffects } from '#core/changes/live-effects.ts';
import type { LinkFinding } from '#core/checks/link-findings.ts';
import type { PageFinding } from '#core/checks/page-checks.ts';
import { EVERYONE } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { addresses, linkTargetWords, listOf, menuName, pages } from '../../../tree/words.ts';
import { audienceMenuWords } from '../../../workbench/menu-change-words.ts';
import { numberWords } from '../../../ui/number-words.ts';
import { SETTINGS_WORDS, capital, titleIn } from '../publish-words.ts';

const MAX_LISTED = 8;
const NOTHING_BROKEN: readonly LinkFinding[] = [];
const NOTHING_LACKING: readonly PageFinding[] = [];
const LIVE_FAULTS: Readonly<Record<LinkFinding['fault'], string>> = {
  'not there': 'not live',
  hidden: 'hidden',
  closed: 'closed to some who read it',
  'no heading': 'no such heading',
  missing: 'missing',
  'no answer': 'no answer',
  moved: 'moved',
};

const LIVE_LACKS: Readonly<Record<PageFinding['fault'], string>> = {
  'no text': 'it is empty',
  'no way': 'no menu, list or text leads to it',
  'no description': 'no description',
  'same title': 'another page has its title',
  'required field': 'a required field is empty',
  'unread field': 'a value does not fit its field',
  'empty heading': 'a heading without words',
  'skipped heading': 'a level of headings is skipped',
  'link words': 'words of a link that do not say where it leads',
  'table header': 'a table without a header',
  button: 'a button that leads nowhere',
  alternative: 'a picture without words for those who do not see it',
  subtitles: 'a film without subtitles',
  'no file': 'a place for a file that shows nothing',
  'large file': 'a large document',
  frame: 'an outside frame without address or name',
  'left out': 'HTML that visitors do not get',
  unwritten: 'a planned section that says nothing yet',
  'no shared': 'a place for a shared section that shows nothing',
  'no form': 'a place for a form that shows nothing',
};

/** What visitors notice of a change of the live site, part by part; what does not differ is left out. */
export function Effects({
  effects,
  after,
  broken = NOTHING_BROKEN,
  lacking = NOTHING_LACKING,
}: {
  readonly effects: LiveEffects;
  readonly after: Site;
  /** Links that it would break; left out where two past releases are compared. */
  readonly broken?: readonly LinkFinding[];
  /** What pages would lack with it; left out where two past releases are compared. */
  readonly lacking?: readonly PageFinding[];
}) {
  const changed = effects.addresses.filter((one) => one.before !== null && one.after !== null);
  const parts: ReactNode[] = [];
  if (changed.length > 0)
    parts.push(
      <Part
        key="addresses"
        heading={`${capital(addresses(changed.length))}; the former ${changed.length === 1 ? 'one leads' : 'ones lead'} on`}
        isMono
      >
        {changed.map((one) => (
          <ShowRows key={one.page} pages={[one.page]}>
            <span className="text-quiet line-through">{one.before}</span> → {one.after}
          </ShowRows>
        ))}
      </Part>,
    );
  const left = new Set(changed.map(({ before }) => before));
  const others = effects.redirects.filter(({ from }) => !left.has(from));
  if (others.length > 0)
    parts.push(
      <Part key="redirects" heading="Addresses of removed pages, which lead on" isMono>
        {others.map(({ from, to }) => (
          <span key={from} className="break-all">
            {from} → {to ?? <span className="font-sans">gone (410)</span>}
          </span>
        ))}
      </Part>,
    );
  if (effects.backInUse.length > 0)
    parts.push(
      <Part key="back" heading="Used by a page again, so no longer redirected" isMono>
        {effects.backInUse.map((address) => (
          <span key={address}>{address}</span>
        ))}
      </Part>,
    );
  const menus = menuLines(effects, after);
  if (menus.length > 0)
    parts.push(
      <Part key="menus" heading="Menus">
        {menus.map(lineOfRows)}
      </Part>,
    );
  const access = accessLines(effects, after);
  if (access.length > 0)
    parts.push(
      <Part key="access" heading="Who gains and loses pages" isAttention>
        {access.map(lineOfRows)}
      </Part>,
    );
  if (broken.length > 0)
    parts.push(
      <Part key="links" heading="Links that will break" isAttention>
        {broken.map((finding) => (
          <ShowRows key={JSON.stringify([finding.page, finding.to])} pages={[finding.page]}>
            ‘{titleIn(after, finding.page)}’ to ‘{linkTargetWords(after, finding)}’: {LIVE_FAULTS[finding.fault]}
          </ShowRows>
        ))}
      </Part>,
    );
  if (lacking.length > 0)
    parts.push(
      <Part key="lacking" heading="Pages that will lack something" isAttention>
        {lacking.map(({ page, fault }) => (
          <ShowRows key={`${fault} ${page}`} pages={[page]}>
            ‘{titleIn(after, page)}’: {LIVE_LACKS[fault]}
          </ShowRows>
        ))}
      </Part>,
    );
  if (effects.settings.length > 0)
    parts.push(
      <Part key="settings" heading="Settings">
        {[<span key="0">The {listOf(effects.settings.map((part) => SETTINGS_WORDS[part]))} of the site</span>]}
      </Part>,
    );
  if (parts.length === 0)
    return <p className="text-quiet">No address or menu changes, and nobody gains or loses a page.</p>;
  return <div className="grid gap-x-6 gap-y-3 @2xl:grid-cols-2">{parts}</div>;
}

function Part({
  heading,
  isMono = false,
  isAttention = false,
  children,
}: {
  readonly heading: string;
  readonly isMono?: boolean;
  readonly isAttention?: boolean;
  readonly children: readonly ReactNode[];
}) {
  return (
    <section className="min-w-0">
      <h4 className={`text-small font-medium ${isAttention ? 'text-attention' : ''}`}>{heading}</h4>
      <ul className={`text-small leading-6 ${isMono ? 'font-mono' : ''}`}>
        {children.slice(0, MAX_LISTED).map((child, index) => (
          <li key={index} className="break-words">
            {child}
          </li>
        ))}
        {children.length > MAX_LISTED && (
          <li className="font-sans text-quiet">and {numberWords(children.length - MAX_LISTED)} more</li>
        )}
      </ul>
    </section>
  );
}

/** A line of what visitors notice, with the rows that it is about. */
interface Line {
  readonly words: string;
  readonly rows: readonly PageId[];
}

const lineOfRows = ({ words, rows }: Line): ReactNode => (
  <ShowRows key={words} pages={rows}>
    {words}
  </ShowRows>
);

function menuLines({ menus }: LiveEffects, after: Site): Line[] {
  return after.settings.menus.concat(after.liveSettings?.menus ?? []).flatMap((menu, at, all) => {
    if (all.findIndex(({ id }) => id === menu.id) !== at) return [];
    const mine = menus.filter((one) => one.menu === menu.id);
    const come = mine.filter((one) => one.before === null);
    const go = mine.filter((one) => one.after === null);
    const others = mine.length - come.length - go.length;
    const names = (list: typeof mine, side: 'before' | 'after') =>
      list.length <= 3 ? list.map((one) => `‘${one[side]!.text}’`).join(', ') : `${list.length} entries`;
    const said = [
      come.length > 0 && `${names(come, 'after')} ${come.length === 1 ? 'comes' : 'come'}`,
      go.length > 0 && `${names(go, 'before')} ${go.length === 1 ? 'goes' : 'go'}`,
      others > 0 && `${others} ${others === 1 ? 'moves or is' : 'move or are'} renamed`,
    ].filter((words) => words !== false);
    // An entry that is a page of the tree has the page's id.
    const rows = mine.map(({ entry }) => entry as string as PageId);
    return said.length === 0 ? [] : [{ words: `${menuName(menu)}: ${said.join(', ')}`, rows }];
  });
}

function accessLines({ audiences, menusOf }: LiveEffects, after: Site): Line[] {
  return audiences.map(({ audience, gains, loses }) => {
    const name =
      audience === EVERYONE
        ? 'Everyone'
        : (after.settings.audiences.find(({ id }) => id === audience)?.name ?? 'An audience');
    const titles = (list: readonly PageId[]) =>
      list.length <= 3 ? list.map((page) => `‘${titleIn(after, page)}’`).join(', ') : pages(list.length);
    const menus = menusOf.find((one) => one.audience === audience);
    const words = `${name}: ${[
      gains.length > 0 && `gains ${titles(gains)}`,
      loses.length > 0 && `loses ${titles(loses)}`,
      ...(menus ? audienceMenuWords(menus) : []),
    ]
      .filter(Boolean)
      .join(', ')}`;
    return { words, rows: [...gains, ...loses] };
  });
}
