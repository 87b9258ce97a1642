import { createHash } from 'node:crypto';
import type { OldPage } from '#core/carryover/inventory.ts';
import type { MatchPage } from '#core/carryover/match-page.ts';
import type { ProposedPair } from '#core/carryover/match.ts';
import { type TextPart, plainTextOf } from '#core/model/content.ts';
import { derivedOf } from '#core/derive/derived.ts';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import { planOf } from '#core/model/plan.ts';
import { type Site, ancestorsOf } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Database } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import { loadOldSite, oldSiteVersion } from '../old-site/old-site-repository.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import { contentsOf } from '../sites/site-repository.ts';
import { type MatchInput, MatchThread } from './match-thread.ts';

interface KnownText {
  readonly headings: readonly string[];
  readonly text: string;
}
interface KnownMatch {
  readonly inputs: string;
  readonly pairs: Promise<ProposedPair[]>;
}

/** So much of a page's text is compared, in characters. */
const COMPARED_TEXT = 4000;

/**
 * Proposes which old pages the planned ones come from. What was matched is kept until the plan or the inventory has
 * changed in something that the matching looks at; then only what has changed is worked out again. Texts are read once.
 */
export class CarryOverService {
  readonly #database: Database;
  readonly #cache: SiteCache;
  readonly #thread = new MatchThread();
  readonly #known = new Map<SiteKey, KnownMatch>();
  /** Texts of pages by their ids; a text of an id never changes. */
  readonly #texts = new Map<ContentId, KnownText>();
  readonly #oldSites = new Map<SiteKey, { version: number; pages: readonly OldPage[] }>();

  constructor(database: Database, cache: SiteCache) {
    this.#database = database;
    this.#cache = cache;
  }

  /** The proposed pairs for the plan as it is now, the surest first. @throws ProblemError where there is no such site. */
  async propose(key: SiteKey): Promise<{ revision: number; version: number; pairs: ProposedPair[] }> {
    const { site, revision } = await this.#cache.current(key);
    const { version, pages } = await this.#oldSite(key);
    const input = await this.#input(site, pages);
    const inputs = createHash('sha1').update(JSON.stringify(input)).digest('base64');
    let known = this.#known.get(key);
    if (known?.inputs !== inputs) {
      known = { inputs, pairs: this.#thread.match(key, input) };
      this.#known.set(key, known);
      known.pairs.catch(() => this.#known.delete(key));
    }
    return { revision, version, pairs: await known.pairs };
  }

  close = (): Promise<void> => this.#thread.close();

  async #oldSite(key: SiteKey): Promise<{ version: number; pages: readonly OldPage[] }> {
    const known = this.#oldSites.get(key);
    if (known && known.version === (await oldSiteVersion(this.#database, key))) return known;
    const loaded = await loadOldSite(this.#database, key);
    if (!loaded) throw new ProblemError('site-unknown', { site: key });
    this.#oldSites.set(key, loaded);
    return loaded;
  }

  async #input(site: Site, oldPages: readonly OldPage[]): Promise<MatchInput> {
    const { outline, addresses } = derivedOf(site);
    const { language } = site.settings;
    const nodes = outline.nodes.filter((node) => node.type === 'page');
    await this.#readTexts(
      site.key,
      nodes.flatMap(({ content }) => (content === null ? [] : [content])),
    );
    const planned = nodes.map((node): MatchPage => {
      const text = node.content === null ? undefined : this.#texts.get(node.content);
      const said = [textIn(node.description, language), planOf(node).purpose, text?.text ?? ''];
      return {
        key: node.id,
        title: textIn(node.title, language),
        address: addresses[outline.rowOf.get(node.id)!] ?? '/',
        above: ancestorsOf(site, node.id).map((above) => textIn(above.title, language)),
        headings: text?.headings ?? [],
        text: said.filter(Boolean).join(' ').slice(0, COMPARED_TEXT),
      };
    });
    const old = oldPages.map((page): MatchPage => ({
      key: page.address,
      title: page.title,
      address: page.address,
      above: [],
      headings: page.headings,
      text: `${page.description} ${page.text}`.trim(),
    }));
    return {
      old,
      planned,
      decided: {
        pairs: nodes.flatMap((node) => planOf(node).oldAddresses.map((address) => [address, node.id] as const)),
        old: [...site.oldPages].filter(([, { letGo }]) => letGo !== null).map(([address]) => address),
        planned: nodes.filter((node) => planOf(node).origin === 'new').map((node) => node.id),
        declined: [...site.oldPages].flatMap(([address, { declined }]) =>
          declined.map((page) => [address, page] as const),
        ),
      },
    };
  }

  async #readTexts(key: SiteKey, ids: readonly ContentId[]): Promise<void> {
    const unread = ids.filter((id) => !this.#texts.has(id));
    if (unread.length === 0) return;
    for (const { id, document } of await contentsOf(this.#database, key, unread)) {
      const headings = (document.content ?? []).filter((part: TextPart) => part.type === 'heading').map(plainTextOf);
      this.#texts.set(id, { headings, text: plainTextOf(document).slice(0, COMPARED_TEXT) });
    }
  }
}
