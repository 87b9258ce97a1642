import { fromFirst, withoutTrailing } from '#core/model/cut-text.ts';
import { createHash } from 'node:crypto';
import type { Express } from 'express';
import { type Membership, accessReason, passphrasesIn } from '#core/derive/access.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { reasonWords } from '#core/derive/reason-words.ts';
import { nearestPages } from '#core/derive/nearest-pages.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import { EVERYONE, closureOf } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { logosOf } from '#core/model/look.ts';
import type { Site } from '#core/model/site.ts';
import type { Assets } from './assets.ts';
import type { Database } from '../database/connect.ts';
import { type BegunWalk, type Walk, walkOf } from '../visitors/walk-repository.ts';
import type { FileStore } from '../library/file-store.ts';
import { answerWithFile, noFile } from './file-answers.ts';
import { filesByContent, filesOfContent, liveFiles, usesOfAll } from './live-file-repository.ts';
import { type LiveFile, mayHave } from './live-files.ts';
import { type Html, type Markup, markup, sound } from './html.ts';
import { htmlOf, loadDraft, loadRelease, releasedAt } from './live-repository.ts';
import { MENU_SCRIPT_SOURCE } from './menu-script.ts';
import { SAMPLE_ADDRESS, SAMPLE_CONTENT, SAMPLE_DRAWING } from './sample-drawing.ts';
import { questionIn, renderSearch } from './site-search.ts';
import { type LiveView, type SitePlace, isAnswered, pathOf } from './live-view.ts';
import { hostsOfFrames, policyWith } from './with-frames.ts';
import { textFor } from './text-for.ts';
import { type TextOf, answerAtRow, notFoundPage } from './standing-pages.ts';

/** Tells the workbench around the frame which page shows, so that two walks can go in step. */
const SCRIPT = `parent.postMessage({ walk: document.currentScript.dataset.page }, document.currentScript.dataset.to)`;
const SCRIPT_HASH = createHash('sha256').update(SCRIPT).digest('base64');

/** @param formsAt below it forms may lead: the search, and the filters of lists */
const headersFor = ({ origin }: Walk, formsAt: string, hosts: readonly string[]) => ({
  'Cache-Control': 'no-store',
  'X-Robots-Tag': 'noindex',
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'no-referrer',
  'Content-Security-Policy': policyWith(
    `default-src 'none'; style-src 'self'; font-src 'self'; img-src 'self' https: data:; media-src 'self'; script-src ${MENU_SCRIPT_SOURCE} 'sha256-${SCRIPT_HASH}'; base-uri 'none'; form-action ${formsAt}; frame-ancestors ${origin}`,
    hosts,
  ),
});

/**
 * The site as somebody else has it, for whoever has a token: the same pages as visitors get, and above them a bar that
 * says who one is being and why the page answers as it does. Cookies play no part in it, and nothing of it is counted.
 */
export function mountWalks(
  app: Express,
  database: Database,
  store: FileStore,
  { assets, origin }: { readonly assets: Assets; readonly origin: string },
  now: () => number,
): void {
  app.get('/:site/~walk/:token{/*rest}', async (request, response) => {
    const { site: key, token } = request.params as { site: string; token: string };
    const walk = await walkOf(database, key, token, new Date(now()));
    if (!walk)
      return void response
        .status(410)
        .set({ 'Cache-Control': 'no-store', 'X-Robots-Tag': 'noindex' })
        .type('text')
        .end('This walk has ended. Start it again in the workbench.\n');
    const base = `/${key}/~walk/${token}`;
    const rest = decoded(request.path.slice(base.length)) || '/';
    const query = fromFirst(request.originalUrl, '?');
    const [, content, step] = /^\/~files\/([0-9a-f]{32})\/([\w.-]+)$/.exec(rest) ?? [];
    if (content !== undefined) {
      if (content === SAMPLE_CONTENT)
        return void response
          .set(headersFor(walk, "'none'", []))
          .type('image/svg+xml')
          .end(SAMPLE_DRAWING);
      const file = await walkedFile(database, walk, content, now());
      if (!file) return noFile(response);
      return answerWithFile(request, response, {
        store,
        file,
        isOffered: false,
        content,
        step: step!,
        caching: 'private, no-cache',
        base,
      });
    }
    const site = await siteOf(database, walk);
    const sheet = site && assets.sheetOf(site.settings.look, walk);
    if (sheet?.path === rest) return sheet.answer.send(request, response);
    const answer = await answerOf(
      database,
      walk,
      site,
      { base, stylesheet: base + (sheet?.path ?? ''), fonts: sheet?.fonts ?? [], screen: walk.screen },
      rest,
      query,
      now(),
    );
    response
      .status(answer.status)
      .set(headersFor(walk, `${origin}${base}/`, answer.html === '' ? [] : hostsOfFrames(answer.html.text)));
    if (answer.moved !== undefined) response.location(answer.moved);
    response.type('html').end(answer.html === '' ? '' : answer.html.text);
  });
}

/** The draft, what is live, or what was live after a release; in the look that is asked for. */
async function siteOf(database: Database, walk: Walk): Promise<Site | undefined> {
  const site = await siteAsItIs(database, walk);
  return site && walk.look ? { ...site, settings: { ...site.settings, look: walk.look } } : site;
}

async function siteAsItIs(database: Database, { site, isDraft, release }: Walk): Promise<Site | undefined> {
  if (isDraft) return loadDraft(database, site);
  const live = await loadRelease(database, site);
  return release === null || !live ? live?.site : releasedAt(database, live.whole, release);
}

async function answerOf(
  database: Database,
  walk: BegunWalk,
  site: Site | undefined,
  where: Omit<SitePlace, 'origin'>,
  address: string,
  query: string,
  now: number,
): Promise<{ status: number; html: Markup; moved?: string }> {
  if (!site)
    return { status: 404, html: markup`<p>Nothing of this site is live yet. Walk through the draft instead.</p>` };
  const at = walk.at ?? now;
  if (address === SAMPLE_ADDRESS) {
    // What makes texts into HTML is needed for nothing else on the visitors' side.
    const { samplePage } = await import('./sample-page.ts');
    const bar = barOf(walk, address, 'All that can stand on pages, in each scheme of the look. Visitors never get it.');
    return {
      status: 200,
      html: samplePage(
        site.settings,
        { place: { ...where, origin: '' }, walk: bar, query: new URLSearchParams(query) },
        at,
      ),
    };
  }
  const member = memberOf(walk, site);
  const plain = derivedOf(site);
  const asked = plain.rowAt.get(address);
  const page: PageId | null = asked === undefined ? null : plain.outline.nodes[asked]!.id;
  const why =
    address === '/search'
      ? 'The search finds what they may open.'
      : page === null
        ? 'No page has this address.'
        : reasonWords(site, page, accessReason(site, page, member, at));
  const view: LiveView = {
    ...visitorView(site, member, at, walk.isSignedIn),
    files: await liveFiles(database, site.key, walk.isDraft),
    place: { ...where, origin: '' },
    walk: barOf(walk, address, why),
    query: new URLSearchParams(query),
  };
  if (address === '/search')
    return { status: 200, html: await renderSearch(database, view, walk.isDraft, questionIn(query)) };
  const { derived } = view;
  const textOf: TextOf = async (content) => textFor(await htmlOf(database, site, content, view.visitor), view);
  const row = derived.rowAt.get(address);
  if (row === undefined || !isAnswered(view, row)) {
    const without = derived.rowAt.get(withoutTrailing(address, '/') || '/');
    return without !== undefined && without !== row && isAnswered(view, without)
      ? { status: 308, html: '', moved: pathOf(view.place, derived.addresses[without]!) }
      : { status: 404, html: await notFoundPage(view, nearRows(view, address), textOf) };
  }
  return answerAtRow(view, row, address, textOf);
}

/** What whoever is walked as belongs to. */
const memberOf = (walk: BegunWalk, site: Site): Membership =>
  new Set([
    ...closureOf(site.settings.audiences, walk.isSignedIn ? walk.audiences : [EVERYONE]),
    ...(walk.hasPassphrases ? passphrasesIn(site) : []),
  ]);

/** A file as whoever is walked as has it, in the draft or live. */
async function walkedFile(
  database: Database,
  walk: BegunWalk,
  content: string,
  now: number,
): Promise<LiveFile | undefined> {
  const site = await siteOf(database, walk);
  if (!site) return undefined;
  const found = filesOfContent(
    await liveFiles(database, site.key, walk.isDraft),
    await filesByContent(database, site.key),
    content,
  );
  const [file] = found;
  if (file && logosOf(site.settings.look).includes(file.id)) return file;
  const view = visitorView(site, memberOf(walk, site), walk.at ?? now, walk.isSignedIn);
  return mayHave(view, await usesOfAll(database, site, found, walk.isDraft ? 'node' : 'live_node')) ? file : undefined;
}

const nearRows = ({ derived, found }: LiveView, address: string): number[] =>
  nearestPages(derived.addresses, address, (row) => found[row] === 1).map(({ row }) => row);

function barOf({ who, isDraft, release, at, origin }: Walk, address: string, why: string): Html {
  const when = at === null ? 'now' : `on ${new Date(at).toISOString().slice(0, 16).replace('T', ' ')} UTC`;
  return markup`<aside class="walk" aria-label="Walk"><p><strong>As ${who}</strong>, ${isDraft ? 'the draft' : release === null ? 'live' : `live after release ${release}`}, ${when}. ${why}</p></aside><script data-page="${address}" data-to="${origin}">${sound(SCRIPT)}</script>`;
}

function decoded(path: string): string {
  try {
    return decodeURIComponent(path).normalize('NFC');
  } catch {
    return path;
  }
}
