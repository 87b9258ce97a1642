import { NO_RULE } from '../model/access.ts';
import { type AudienceId, EVERYONE, SIGNED_OUT, SIGNED_OUT_NAME } from '../model/audience.ts';
import { momentWords } from '../model/moment-words.ts';
import type { PageId } from '../model/ids.ts';
import { type LabelRule, isKind } from '../model/page-label.ts';
import { type Site, nodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { type AccessReason, type Narrowing, decidingNarrowing } from './access.ts';

/** A moment as it is kept, in words. */

/** Why a visitor may open a page or may not, as a sentence. */
export function reasonWords(site: Site, page: PageId, reason: AccessReason): string {
  const { opens, asks, chain } = reason;
  if (chain.length === 0) return 'No rule from the top of the tree to here restricts it.';
  const words = ({ page: by, ...one }: Narrowing) => [titleOf(site, by, page), narrowingWords(site, one)];
  if (opens)
    return `Allowed by ${chain
      .map(words)
      .map(([by, rule]) => `${by} (${rule})`)
      .join(', ')}.`;
  const [by, rule] = words(decidingNarrowing(reason)!);
  if (asks) return `It opens with the passphrase of ${by}.`;
  return `Blocked by ${by}: ${rule}.`;
}

const titleOf = (site: Site, by: PageId, page: PageId): string =>
  by === page ? 'the page itself' : `‘${textIn(nodeAt(site, by).title, site.settings.language)}’`;

function narrowingWords(site: Site, { label, ...one }: Omit<Narrowing, 'page'>): string {
  const words = ownWords(site, one);
  if (label === null) return words;
  const known = site.settings.labels.find(({ id }) => id === label);
  return `${known && isKind(known) ? 'of the kind' : 'labelled'} ‘${known?.name ?? 'an unknown label'}’: ${words}`;
}

function ownWords(site: Site, { by, rule }: Pick<Narrowing, 'by' | 'rule'>): string {
  switch (by) {
    case 'hidden':
      return 'hidden';
    case 'hidden-branch':
      return 'its branch is hidden';
    case 'passphrase':
      return 'its passphrase';
    case 'window':
      return listed([
        rule.from !== null && `from ${momentWords(rule.from, site.settings.timeZone)}`,
        rule.until !== null && `until ${momentWords(rule.until, site.settings.timeZone)}`,
      ]);
    case 'audiences':
      return listed([
        rule.only !== null && (rule.only.length === 0 ? 'nobody' : `only ${audienceNames(site, rule.only)}`),
        rule.except.length > 0 && `not ${audienceNames(site, rule.except)}`,
      ]);
  }
}

/** What the rule of a label says, as a sentence. */
export function labelWords(site: Site, kept: LabelRule): string {
  const rule = { ...NO_RULE, ...kept };
  const words = listed([
    ownWords(site, { by: 'audiences', rule }),
    ownWords(site, { by: 'window', rule }),
    rule.search !== 'no' && 'left out of site search',
    rule.engines !== 'no' && 'left out of search engines',
  ]);
  return words === '' ? 'It restricts nothing yet.' : `${words[0]!.toUpperCase()}${words.slice(1)}.`;
}

const listed = (words: readonly (string | false)[]): string => words.filter(Boolean).join(', ');

/** The names of audiences, as they are listed. */
export const audienceNames = (site: Site, ids: readonly AudienceId[]): string =>
  ids
    .map((id) =>
      id === EVERYONE
        ? 'Everyone'
        : id === SIGNED_OUT
          ? SIGNED_OUT_NAME
          : (site.settings.audiences.find((one) => one.id === id)?.name ?? 'an unknown audience'),
    )
    .join(' and ');
