import type { MatchPage } from '#core/carryover/match-page.ts';
import { matchPages } from '#core/carryover/match.ts';
import { ACCEPT_FROM } from '#core/carryover/reasons.ts';
import { acceptPairs, letGoOf } from '#core/carryover/settle.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { planOf } from '#core/model/plan.ts';
import { type Site, ancestorsOf } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Operation } from '#core/operations/operation.ts';
import { FORMER_SITE } from './old-site.ts';

/** The sections of which the carry-over is settled already. */
const SETTLED = new Set(['Courses', 'Apply', 'Visit', 'Workshops']);
/** Former pages that were let go. */
const LET_GO = ['Guestbook', 'Webcam', 'Our awards 2009', 'Photo competition'];

/** What somebody has settled of the carry-over: the sure pairs of some sections, and a few pages let go. */
export function pellowCarryOver(site: Site, formerOrigin: string): Operation[] {
  const { outline, addresses } = derivedOf(site);
  const { language } = site.settings;
  const titleOf = (row: number) => textIn(outline.nodes[row]!.title, language);
  const sections = new Map<string, string>();
  const planned: MatchPage[] = [];
  outline.nodes.forEach((node, row) => {
    if (node.type !== 'page' || planOf(node).origin === 'new') return;
    const above = ancestorsOf(site, node.id);
    sections.set(node.id, textIn((above.at(-1) ?? node).title, language));
    planned.push({
      key: node.id,
      title: titleOf(row),
      address: addresses[row]!,
      above: above.map((one) => textIn(one.title, language)),
      headings: [],
      text: textIn(node.description, language),
    });
  });
  const old = FORMER_SITE.map((page): MatchPage => ({
    key: formerOrigin + page.path,
    title: page.title,
    address: page.path,
    above: [],
    headings: page.blocks.filter((block) => block.startsWith('#')).map((block) => block.replace(/^#+ /, '')),
    text: page.blocks.join(' '),
  }));
  const sure = matchPages(old, planned).filter(
    ({ confidence, planned: page }) => confidence >= ACCEPT_FROM && SETTLED.has(sections.get(page)!),
  );
  const letGo = FORMER_SITE.filter(({ title }) => LET_GO.some((one) => title.startsWith(one)));
  const pairs = sure.map(({ old: address, planned: page, reasons }) => ({
    old: address,
    planned: outline.nodes[outline.rowOf.get(page as never)!]!.id,
    oldWords: null,
    isSame: reasons.includes('same-title'),
  }));
  const isSame = new Map(pairs.map((pair) => [pair.planned, pair.isSame]));
  // Somebody has looked at the texts: what is still called the same is kept.
  const decided = acceptPairs(site, pairs).map((operation): Operation => {
    if (operation.name !== 'page.set' || operation.fields.plan?.origin !== null) return operation;
    const origin = isSame.get(operation.page) ? 'keep' : 'rework';
    return { ...operation, fields: { ...operation.fields, plan: { ...operation.fields.plan, origin } } };
  });
  return [...decided, ...letGo.flatMap(({ path }) => letGoOf(site, formerOrigin + path, 'gone'))];
}
