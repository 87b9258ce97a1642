import { derivedOf } from '#core/derive/derived.ts';
import { type MenuEntry, labelOf, leadsTo, mainMenuOf } from '#core/derive/menu.ts';
import { type TrailStep, trailOf } from '#core/derive/trail.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { ancestorsOf, childrenOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { escaped, scriptJson } from './html.ts';

/** Where a site is: the path in front of its addresses, and its origin for absolute ones. */
export interface SitePlace {
  readonly base: string;
  readonly origin: string;
  readonly stylesheet: string;
}

/** An address of the site as it stands in a link: percent-encoded, below the site's own path. */
export const pathOf = (place: SitePlace, address: string): string => place.base + encodeURI(address);

const hrefOf = (place: SitePlace, to: string): string => (to.startsWith('/') ? pathOf(place, to) : to);

interface Frame {
  readonly title: string;
  readonly head: string;
  readonly body: string;
  readonly current: PageId | null;
}

/** A whole page for visitors. `html` is the page's text, ready. */
export function renderPage(site: Site, place: SitePlace, page: PageId, html: string): string {
  const node = nodeAt(site, page);
  const { language } = site.settings;
  const title = textIn(node.title, language);
  const description = textIn(node.description, language);
  const derived = derivedOf(site);
  const address = derived.addresses[derived.outline.rowOf.get(page)!]!;
  const trail = trailOf(site, page);
  const isHome = page === derived.home;
  const head = [
    description === '' ? '' : `<meta name="description" content="${escaped(description)}">`,
    `<link rel="canonical" href="${escaped(place.origin + pathOf(place, address))}">`,
    `<script type="application/ld+json">${scriptJson(trailData(place, trail))}</script>`,
  ].join('');
  const body = [
    isHome ? '' : renderTrail(place, trail),
    `<main id="content"><h1>${escaped(title)}</h1>`,
    description === '' || html !== '' ? '' : `<p>${escaped(description)}</p>`,
    html,
    isHome ? '' : renderSection(site, place, page),
    '</main>',
  ].join('');
  return renderFrame(site, place, {
    title: isHome ? site.settings.name : `${title} – ${site.settings.name}`,
    head,
    body,
    current: page,
  });
}

/** The page for addresses that lead nowhere. */
export function renderNotFound(site: Site, place: SitePlace): string {
  const body = `<main id="content"><h1>There is no page at this address</h1>
<p>It may have moved, or the address may have a typing mistake. The menu above lists the main pages.</p>
<p><a href="${escaped(pathOf(place, '/'))}">Go to the home page</a></p></main>`;
  return renderFrame(site, place, {
    title: `Not found – ${site.settings.name}`,
    head: '<meta name="robots" content="noindex">',
    body,
    current: null,
  });
}

function renderFrame(site: Site, place: SitePlace, { title, head, body, current }: Frame): string {
  const name = escaped(site.settings.name);
  return `<!doctype html>
<html lang="${escaped(site.settings.language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>${head}<link rel="stylesheet" href="${place.stylesheet}"></head>
<body><a class="skip" href="#content">Go to the text</a>
<header class="head"><a class="name" href="${escaped(pathOf(place, '/'))}">${name}</a>${renderMenu(site, place, current)}</header>
${body}
<footer class="foot"><p>${name}</p></footer></body></html>`;
}

function renderMenu(site: Site, place: SitePlace, current: PageId | null): string {
  const entries = mainMenuOf(site);
  if (entries.length === 0) return '';
  const above = new Set(current === null ? [] : ancestorsOf(site, current).map((node) => node.id));
  const list = (items: readonly MenuEntry[]): string =>
    items
      .map((entry) => {
        const mark =
          entry.page === current ? ' aria-current="page"' : above.has(entry.page) ? ' aria-current="true"' : '';
        const text = escaped(entry.text);
        const label =
          entry.leadsTo === null
            ? `<span class="text"${mark}>${text}</span>`
            : `<a href="${escaped(hrefOf(place, entry.leadsTo))}"${mark}>${text}</a>`;
        if (entry.entries.length === 0) return `<li>${label}</li>`;
        return `<li>${label}<details name="menu"><summary><span class="unseen">Pages in ${text}</span></summary><ul>${list(entry.entries)}</ul></details></li>`;
      })
      .join('');
  return `<nav aria-label="Main" class="menu"><details class="fold"><summary>Menu</summary><ul class="entries">${list(entries)}</ul></details></nav>`;
}

function renderTrail(place: SitePlace, trail: readonly TrailStep[]): string {
  const steps = trail.map((step, index) => {
    const text = escaped(step.text);
    if (index === trail.length - 1) return `<li><span aria-current="page">${text}</span></li>`;
    return step.address === null
      ? `<li><span>${text}</span></li>`
      : `<li><a href="${escaped(pathOf(place, step.address))}">${text}</a></li>`;
  });
  return `<nav aria-label="Breadcrumb" class="trail"><ol>${steps.join('')}</ol></nav>`;
}

/** The trail as schema.org's BreadcrumbList; steps without an address have a name only. */
function trailData(place: SitePlace, trail: readonly TrailStep[]): object {
  return {
    '@context': 'https://schema.org',
    '@type': 'BreadcrumbList',
    itemListElement: trail.map((step, index) => ({
      '@type': 'ListItem',
      position: index + 1,
      name: step.text,
      ...(step.address !== null && { item: place.origin + pathOf(place, step.address) }),
    })),
  };
}

/** The pages right below, so that what the menu has no room for can still be reached; headings group those below them. */
function renderSection(site: Site, place: SitePlace, page: PageId): string {
  const derived = derivedOf(site);
  const list = (above: PageId): string => {
    const items = childrenOf(site, above).flatMap((id) => {
      const row = derived.outline.rowOf.get(id)!;
      const node = derived.outline.nodes[row]!;
      if (derived.hiddenBy[row] !== -1 || !node.inMenus) return [];
      const text = escaped(labelOf(site, node));
      if (node.type === 'heading') {
        const below = list(id);
        return below === '' ? [] : [`<li><span class="text">${text}</span>${below}</li>`];
      }
      const to = leadsTo(derived, row);
      if (to === null) return [];
      const description = textIn(node.description, site.settings.language);
      return [
        `<li><a href="${escaped(hrefOf(place, to))}">${text}</a>${description === '' ? '' : `<p>${escaped(description)}</p>`}</li>`,
      ];
    });
    return items.length === 0 ? '' : `<ul>${items.join('')}</ul>`;
  };
  const pages = list(page);
  return pages === '' ? '' : `<nav aria-label="In this section" class="section"><h2>In this section</h2>${pages}</nav>`;
}
