import { accessReason } from '#core/derive/access.ts';
import { layoutOf } from '#core/derive/layouts.ts';
import { type ShownTrail, shownTrail } from '#core/derive/shown-trail.ts';
import { type TrailStep, trailOf } from '#core/derive/trail.ts';
import { whoOpens } from '#core/derive/who-opens.ts';
import { STRAPLINE } from '#core/model/fact.ts';
import type { PageId } from '#core/model/ids.ts';
import { contrast } from '#core/look/colours.ts';
import { schemesOf } from '#core/look/schemes.ts';
import type { Screen } from '#core/model/look.ts';
import { nodeAt } from '#core/model/site.ts';
import { ICON_SIZES, iconStep } from '../library/icons.ts';
import { type LiveFile, fileHref } from './live-files.ts';
import { textIn } from '#core/model/texts.ts';
import { type Html, type Markup, markup, scriptJson } from './html.ts';
import { type LiveView, type SitePlace, pathOf, signInAddress, signOutForm } from './live-view.ts';
import { factText, renderFacts } from './facts.ts';
import { renderDetails, renderNamings } from './details.ts';
import { hasFieldsInIt } from './details-in-texts.ts';
import { kindData } from './kind-data.ts';
import { feedAddress, hasFeed } from './machine-files.ts';
import { renderListing, renderTurns } from './render-listing.ts';
import { PREVIEW_HEIGHT, PREVIEW_WIDTH } from './preview-picture.ts';
import { previewAddress, previewOf } from './page-previews.ts';
import { renderMenu } from './render-menus.ts';
import { renderSearchForm } from './search-form.ts';
import { firstPicture } from './with-files.ts';
import { siteWords } from './site-words.ts';

/** A page of the site that stands in for one that is built in. */
export interface OwnPage {
  readonly title: string;
  readonly html: Markup;
}

/** Asks search engines to leave the page out. */
export const NO_INDEX = markup`<meta name="robots" content="noindex">`;

/** What differs from page to page. `isSearch` where the page has a search field of its own. */
interface Frame {
  readonly title: string;
  readonly head: Markup | readonly Markup[];
  readonly body: Markup | readonly Markup[];
  readonly current: PageId | null;
  readonly isSearch?: boolean;
}

/** A whole page for visitors. `text` is the page's text, ready. */
export function renderPage(view: LiveView, page: PageId, text: Markup): Html {
  const { site, place, derived } = view;
  const node = nodeAt(site, page);
  const { language } = site.settings;
  const title = textIn(node.title, language);
  const description = textIn(node.description, language);
  const searchTitle = textIn(node.searchTitle, language);
  const row = derived.outline.rowOf.get(page)!;
  const address = derived.addresses[row]!;
  const trail = trailOf(site, page, derived);
  const isHome = page === derived.home;
  const data = kindData(view, page, description, place.origin + pathOf(place, address));
  const hasLists = text !== '' && text.text.includes('<div class="section listed"');
  const head: Markup[] = [
    description === '' ? '' : markup`<meta name="description" content="${description}">`,
    view.offered[row] === 1 ? '' : NO_INDEX,
    markup`<link rel="canonical" href="${place.origin + pathOf(place, address)}">`,
    ...(view.offered[row] === 1 ? renderPreview(view, page, description, text) : []),
    hasFeed(view, row) || (hasLists && view.offered[row] === 1 && place.isStatic !== true)
      ? markup`<link rel="alternate" type="application/atom+xml" title="${title}" href="${pathOf(place, feedAddress(address))}">`
      : '',
    markup`<script type="application/ld+json">${scriptJson(trailData(place, trail))}</script>`,
    data === null ? '' : markup`<script type="application/ld+json">${scriptJson(data)}</script>`,
  ];
  const isEmpty = text === '' || text.text === '';
  const main = [
    isEmpty && description !== '' ? markup`<p>${description}</p>` : '',
    hasFieldsInIt(text) ? '' : renderDetails(view, page),
    text,
    renderNamings(view, page),
    row === view.standingIn.get('account') ? renderOwnAccount(view) : '',
    renderListing(view, page),
    layoutOf(site, page).hasTurns ? renderTurns(view, page) : '',
  ];
  const body = [
    isHome ? '' : renderTrail(view, shownTrail(site, page, derived)),
    markup`<main id="content"><h1>${title}</h1>${main}</main>`,
  ];
  return renderFrame(view, {
    title: searchTitle || (isHome ? site.settings.name : `${title} – ${site.settings.name}`),
    head,
    body,
    current: page,
  });
}

/** What a page looks like where somebody links to it elsewhere (the Open Graph protocol); for pages that search engines are offered. */
function renderPreview(view: LiveView, page: PageId, description: string, text: Markup): Markup[] {
  const { site, place, derived } = view;
  const preview = previewOf(view, page);
  const address = derived.addresses[derived.outline.rowOf.get(page)!]!;
  const own = firstPicture(text);
  const drawn = { src: previewAddress(place, page, preview), alt: preview.title };
  const size = own
    ? []
    : ([
        ['og:image:width', String(PREVIEW_WIDTH)],
        ['og:image:height', String(PREVIEW_HEIGHT)],
      ] as const);
  const picture = own ?? drawn;
  const said = [
    ['og:type', 'website'],
    ['og:site_name', site.settings.name],
    ['og:title', preview.title],
    ['og:description', description],
    ['og:url', place.origin + pathOf(place, address)],
    ['og:image', place.origin + picture.src!],
    ['og:image:alt', picture.alt ?? ''],
    ...size,
  ] as const;
  return said.map(([name, content]) => (content === '' ? '' : markup`<meta property="${name}" content="${content}">`));
}

/** What a page says at an address that leads nowhere. */
export interface NotFound {
  /** Whether what was there is gone for good. */
  readonly isGone: boolean;
  /** The rows of pages whose addresses are nearest. */
  readonly near: readonly number[];
  /** The site's own page for it, or null. */
  readonly own: OwnPage | null;
}

/** The page for addresses that lead nowhere. */
export function renderNotFound(view: LiveView, { isGone, near, own }: NotFound): Html {
  const { site, place } = view;
  const words = siteWords(site.settings.language);
  const said = isGone ? words.gone : words.notFound;
  const title = own?.title ?? said.title;
  const lead = own?.html ?? markup`<p>${said.text} ${words.menuAbove}</p>`;
  return renderFrame(view, {
    title: `${own?.title ?? said.short} – ${site.settings.name}`,
    head: NO_INDEX,
    body: markup`<main id="content"><h1>${title}</h1>${lead}${renderNear(view, near)}
<p><a href="${pathOf(place, '/')}">${words.home}</a></p></main>`,
    current: null,
  });
}

/** The page that stands for all pages while the site is closed for works: nothing of the site is in it but its name. */
export function renderWorks({ site, place }: LiveView, words: string, until: Date | null): Html {
  const { name, language, timeZone } = site.settings;
  const own = siteWords(language);
  const when =
    until === null
      ? ''
      : markup`<p>${own.opensAgain(new Intl.DateTimeFormat(language, { dateStyle: 'full', timeStyle: 'short', timeZone }).format(until))}</p>`;
  return markup`<!doctype html>
<html lang="${language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${name}</title>${NO_INDEX}<link rel="stylesheet" href="${place.stylesheet}"></head>
<body><header class="head head-title"><span class="name">${name}</span></header>
<main id="content"><h1>${own.works.title}</h1>${words === '' ? markup`<p>${own.works.text}</p>` : markup`<p>${words}</p>`}${when}</main></body></html>`;
}

function renderNear({ site, place, derived }: LiveView, near: readonly number[]): Markup {
  if (near.length === 0) return '';
  const items = near.map((row) => {
    const title = textIn(derived.outline.nodes[row]!.title, site.settings.language);
    const address = derived.addresses[row]!;
    return markup`<li><a href="${pathOf(place, address)}">${title}</a> <small class="address">${address}</small></li>`;
  });
  return markup`<section aria-labelledby="near"><h2 id="near">${siteWords(site.settings.language).near}</h2><ul class="near">${items}</ul></section>`;
}

/** The sign that browsers show in tabs and lists, and telephones on their screens: the logo, else the first letter of the site's name. */
function renderIcon({ site, place, files }: LiveView): Html {
  const { name, look } = site.settings;
  const logo = look.logo === null ? undefined : files.get(look.logo);
  if (logo?.isReady) {
    const icons = ICON_SIZES.map((size) => {
      const rel = size === 180 ? 'apple-touch-icon' : 'icon';
      return markup`<link rel="${rel}" type="image/png" sizes="${size}x${size}" href="${fileHref(place, logo, iconStep(size))}">`;
    });
    return markup`${icons}`;
  }
  const { paper, ink } = schemesOf(look).strong.light;
  const [letter = ''] = name.trim().toUpperCase();
  const icon = markup`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 32 32"><rect width="32" height="32" rx="7" fill="${paper}"/><text x="16" y="23" text-anchor="middle" font-family="sans-serif" font-size="20" font-weight="700" fill="${ink}">${letter}</text></svg>`;
  return markup`<link rel="icon" type="image/svg+xml" href="data:image/svg+xml,${encodeURIComponent(icon.text)}">`;
}

/** A whole page around what differs, in its layout. */
export function renderFrame(view: LiveView, { title, head, body, current, isSearch = false }: Frame): Html {
  const { site, place } = view;
  const side = renderMenu(view, 'side', current);
  return markup`<!doctype html>
<html lang="${site.settings.language}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${title}</title>${head}${renderIcon(view)}${(place.fonts ?? []).map((font) => markup`<link rel="preload" href="${font}" as="font" type="font/woff2" crossorigin>`)}<link rel="stylesheet" href="${place.stylesheet}"></head>
<body>${view.walk ?? ''}<a class="skip" href="#content">${siteWords(site.settings.language).toText}</a>
${renderMenu(view, 'utility', current)}${renderHeader(view, current, isSearch)}
${side === '' ? body : markup`<div class="beside"><div>${body}</div>${side}</div>`}
${renderFooter(view, current)}</body></html>`;
}

function renderHeader(view: LiveView, current: PageId | null, isSearch: boolean): Markup {
  const { site, place } = view;
  const { header, picture } = layoutOf(site, current);
  if (header === 'none') return '';
  const name = markup`<a class="name" href="${pathOf(place, '/')}">${renderName(view)}</a>`;
  const facts = renderFacts(site.settings.facts.filter(({ inHeader }) => inHeader));
  const search = isSearch ? '' : renderSearchForm(view, '', 'head');
  if (header === 'title') return markup`<header class="head head-title">${name}${search}${facts}</header>`;
  const strapline = header === 'tall' ? factText(site, STRAPLINE) : '';
  const behind = header === 'tall' && picture !== '' ? markup`<img class="picture" src="${picture}" alt="">` : '';
  return markup`<header class="head head-${header}">${behind}${name}${strapline === '' ? '' : markup`<p class="strapline">${strapline}</p>`}${search}${facts}${renderMenu(view, 'header', current)}</header>`;
}

/** What the link to the home page says: the name of the site, its logo, or both. */
function renderName(view: LiveView): Markup | string {
  const { name, look } = view.site.settings;
  const logo = renderLogo(view, look.withName ? '' : name);
  if (logo === '') return name;
  return look.withName ? markup`${logo}<span>${name}</span>` : logo;
}

/** The logo of the site, for the ground that its header has on light screens and on dark ones; nothing where it has none. */
function renderLogo({ site, place, files }: LiveView, words: string): Markup {
  const { look } = site.settings;
  const on = (screen: Screen): LiveFile | undefined => {
    const { paper } = schemesOf(look)[look.header][screen];
    const isDark = contrast('#ffffff', paper) > contrast('#000000', paper);
    const [first, second] = isDark ? [look.logoOnDark, look.logo] : [look.logo, look.logoOnDark];
    return (first === null ? undefined : files.get(first)) ?? (second === null ? undefined : files.get(second));
  };
  const [light, dark] = place.screen ? [on(place.screen), on(place.screen)] : [on('light'), on('dark')];
  if (!light) return '';
  const size = light.width === null ? '' : markup` width="${light.width}" height="${light.height!}"`;
  const image = markup`<img class="logo" src="${fileHref(place, light)}"${size} alt="${words}">`;
  if (!dark || dark === light) return image;
  return markup`<picture><source media="(prefers-color-scheme: dark)" srcset="${fileHref(place, dark)}">${image}</picture>`;
}

function renderFooter(view: LiveView, current: PageId | null): Markup {
  const { site } = view;
  if (!layoutOf(site, current).hasFooter) return '';
  const facts = renderFacts(site.settings.facts.filter(({ inFooter }) => inFooter));
  return markup`<footer class="foot">${renderMenu(view, 'footer', current)}<p>${site.settings.name}</p>${facts}${renderAccount(view)}</footer>`;
}

/** The way in and out; none where the site has no audiences. */
function renderAccount(view: LiveView): Markup {
  const { site, place, isSignedIn, walk } = view;
  if (site.settings.audiences.length === 0 || walk !== null || place.isStatic) return '';
  return isSignedIn
    ? signOutForm(view)
    : markup`<p><a href="${signInAddress(view)}">${siteWords(site.settings.language).signIn}</a></p>`;
}

/** What the account page shows below its text. It is the same for all who belong to the same audiences. */
function renderOwnAccount(view: LiveView): Html {
  const { site, place, walk } = view;
  const words = siteWords(site.settings.language);
  if (walk !== null) return markup`<p>Visitors sign out and change their password here.</p>`;
  return markup`<section aria-label="${words.yourAccount}"><p><a href="${place.base}/~password">${words.changePassword}</a></p>${signOutForm(view)}</section>`;
}

function renderTrail({ site, place }: LiveView, { steps, leadIn, separator }: ShownTrail): Markup {
  if (steps.length === 0) return '';
  const between = markup`<span class="between" aria-hidden="true">${separator}</span>`;
  const firstFolded = steps.findIndex(({ isFolded }) => isFolded);
  const items = steps.map(({ text: words, address, isCurrent, isFolded }, index) => {
    const current = isCurrent ? markup` aria-current="page"` : '';
    // A step that is left out is there for screen readers, and takes no part in going through the page by the Tab key.
    const step =
      address === null
        ? markup`<span${current}>${words}</span>`
        : markup`<a href="${pathOf(place, address)}"${current}${isFolded ? markup` tabindex="-1"` : ''}>${words}</a>`;
    const gap = index === firstFolded ? markup`<li aria-hidden="true">${between}…</li>` : '';
    return markup`${gap}<li${isFolded ? markup` class="unseen"` : ''}>${index === 0 ? '' : between}${step}</li>`;
  });
  const lead = leadIn === '' ? '' : markup`<span class="lead-in">${leadIn}</span>`;
  return markup`<nav aria-label="${siteWords(site.settings.language).trail}" class="trail">${lead}<ol>${items}</ol></nav>`;
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

/** The form for a passphrase, in place of the page of a row. What is out of sight is not named. */
export function renderPassphrase(view: LiveView, row: number, to: string, isWrong = false): Html {
  const { site, place, derived, locked, walk } = view;
  const title = locked[row] === 1 ? textIn(derived.outline.nodes[row]!.title, site.settings.language) : null;
  const words = siteWords(site.settings.language);
  const lead = markup`<p>${words.opensWithPassphrase(title)}</p>`;
  const form =
    walk === null
      ? markup`<form method="post" action="${place.base}/~passphrase" class="sign-in">
${isWrong ? markup`<p role="alert" class="wrong">${words.passphraseWrong}</p>` : ''}
<input type="hidden" name="to" value="${to}">
<p><label>${words.passphrase}<br><input type="password" name="passphrase" autocomplete="off" required></label></p>
<p><button>${words.openPage}</button></p></form>`
      : markup`<p>Here visitors type it. Start the walk with the passphrases given to see what they see then.</p>`;
  return renderFrame(view, {
    title: `${words.passphrase} – ${site.settings.name}`,
    head: NO_INDEX,
    body: markup`<main id="content"><h1>${words.passphrase}</h1>${lead}${form}</main>`,
    current: null,
  });
}

/** What the sign-in page says besides its form. */
export interface SignIn {
  /** The page that was asked for and is closed, or null. */
  readonly page: PageId | null;
  /** Where to go on to, below the site. */
  readonly to: string;
  readonly email: string;
  readonly isWrong: boolean;
  /** What was done on the way here, so that it is said; null as a rule. */
  readonly done: 'password' | 'joined' | null;
}

/** A sentence that says to whom a page with a lock is open, where its rule wants that said; '' where not. */
function toWhom({ site, visitor, at }: LiveView, page: PageId): string {
  if (accessReason(site, page, visitor, at).closedLook !== 'locked-for') return '';
  return siteWords(site.settings.language).openTo(whoOpens(site, page, at));
}

/** The sign-in page; it stands in the place of a page with a lock, too. */
export function renderSignIn(
  view: LiveView,
  { page, to, email, isWrong, done }: SignIn,
  own: OwnPage | null = null,
): Html {
  const { site, place } = view;
  const words = siteWords(site.settings.language);
  const title = page === null ? null : textIn(nodeAt(site, page).title, site.settings.language);
  const whom = page === null ? '' : toWhom(view, page);
  const lead =
    title === null
      ? view.isSignedIn
        ? markup`<p>${words.signedIn}</p>`
        : ''
      : view.isSignedIn
        ? markup`<p>${words.notOpenToYou(title, whom)}</p>`
        : markup`<p>${words.notOpenToAll(title, whom)}</p>`;
  const said =
    done === null || view.isSignedIn ? '' : markup`<p role="status">${words.done[done]} ${words.signInToGoOn}</p>`;
  const form = view.isSignedIn
    ? ''
    : markup`<form method="post" action="${place.base}/sign-in" class="sign-in">
${isWrong ? markup`<p role="alert" class="wrong">${words.signInWrong}</p>` : ''}
<input type="hidden" name="to" value="${to}">
<p><label>${words.mailAddress}<br><input type="email" name="email" autocomplete="username" required value="${email}"></label></p>
<p><label>${words.password}<br><input type="password" name="password" autocomplete="current-password" required></label></p>
<p><button>${words.signIn}</button></p></form>
<p><a href="${place.base}/~password">${words.forgotten}</a></p>`;
  const heading = own?.title ?? (view.isSignedIn && title !== null ? words.cannotOpen : words.signIn);
  return renderFrame(view, {
    title: `${heading} – ${site.settings.name}`,
    head: NO_INDEX,
    body: markup`<main id="content"><h1>${heading}</h1>${own?.html ?? ''}${said}${lead}${form}</main>`,
    current: null,
  });
}
