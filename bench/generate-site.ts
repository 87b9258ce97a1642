import { generateNKeysBetween } from 'fractional-indexing';
import { type ContentId, type PageId, toSiteKey } from '#core/model/ids.ts';
import { type SiteNode, nodeOf } from '#core/model/node.ts';
import { type LiveNode, type Site, makeSite, newSettings } from '#core/model/site.ts';
import { freeSlug, slugFromTitle } from '#core/model/slug.ts';
import { NO_TEXTS } from '#core/model/texts.ts';

const WORDS =
  'harbour slipway timber evening course workshop visit apply people boat sail rope plank oar loft keel tide quay bench tool plan draw build mend cover paint launch winter summer guide notice minutes members study travel lodging fees dates questions answers library archive gallery safety office staff student teacher'.split(
    ' ',
  );
const LETTERS = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';

/** Numbers that look like chance and are the same for the same seed (mulberry32). */
function chance(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/**
 * A site of so many nodes with the shape of a large one: some ten sections, branches of very different sizes, five to
 * seven levels, a few long lists; one node in fifty a heading, one in twelve edited since it was live or a draft.
 */
export function generateSite(size: number, key = `generated-${size}`, seed = 20261125): Site {
  const random = chance(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const text = (length: number) => Array.from({ length }, () => LETTERS[Math.floor(random() * 62)]).join('');
  const title = () => {
    const words = Array.from({ length: 2 + Math.floor(random() * 3) }, () => pick(WORDS)).join(' ');
    return words.charAt(0).toUpperCase() + words.slice(1);
  };
  const nodes: SiteNode[] = [];
  const live: LiveNode[] = [];
  const liveIds = new Set<PageId>();
  const grow = (parent: PageId | null, count: number, depth: number) => {
    const children = depth === 0 ? 10 : Math.min(count, random() < 0.05 ? 80 : 3 + Math.floor(random() * 9));
    const orders = generateNKeysBetween(null, null, Math.min(children, count));
    const taken = new Set<string>();
    let left = count - orders.length;
    orders.forEach((order, index) => {
      const share = index === orders.length - 1 || depth >= 6 ? left : Math.floor(left * random() * 0.5);
      left -= depth >= 6 ? 0 : share;
      const id = text(12) as PageId;
      const words = title();
      const slug = freeSlug(slugFromTitle(words), (candidate) => taken.has(candidate));
      taken.add(slug);
      const isHeading = depth > 0 && random() < 0.02;
      const node = nodeOf(
        { id, parent, order },
        {
          type: isHeading ? 'heading' : 'page',
          title: { en: words },
          label: random() < 0.05 ? { en: words.split(' ')[0]! } : NO_TEXTS,
          slug: { en: { text: slug, own: false } },
          inMenus: random() < 0.85,
          hidden: random() < 0.01 ? 'branch' : random() < 0.02 ? 'page' : 'no',
          inAddress: true,
          content: isHeading ? null : (text(12) as ContentId),
        },
      );
      nodes.push(node);
      if ((parent === null || liveIds.has(parent)) && random() > 0.04) {
        liveIds.add(id);
        live.push({
          node: random() < 0.04 ? { ...node, title: { en: `${words} before` } } : node,
          retired: random() < 0.005 && share === 0,
        });
      }
      if (share > 0 && depth < 6) grow(id, share, depth + 1);
    });
  };
  grow(null, size, 0);
  while (nodes.length < size) grow(nodes[Math.floor(random() * 10)]!.id, Math.min(60, size - nodes.length), 6);
  // Visitors have the home page that a release has named.
  const home = live.find(({ node, retired }) => node.parent === null && !retired)!.node.id;
  return makeSite(toSiteKey(key), newSettings(`Generated, ${size} pages`, 'en'), uniqueSlugs(nodes), live, {
    ...newSettings('Generated', 'en'),
    home,
  });
}

/** Where a branch got children twice, their slugs and order keys are told apart. */
function uniqueSlugs(nodes: readonly SiteNode[]): SiteNode[] {
  const slugs = new Set<string>();
  const orders = new Map<PageId | null, SiteNode[]>();
  for (const node of nodes) {
    const siblings = orders.get(node.parent);
    if (siblings) siblings.push(node);
    else orders.set(node.parent, [node]);
  }
  return [...orders.values()].flatMap((siblings) => {
    const keys = generateNKeysBetween(null, null, siblings.length);
    return siblings.map((node, index) => {
      const text = freeSlug(node.slug.en!.text, (candidate) => slugs.has(`${node.parent}/${candidate}`));
      slugs.add(`${node.parent}/${text}`);
      return { ...node, order: keys[index]!, slug: { en: { text, own: false } } };
    });
  });
}
