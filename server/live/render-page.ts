import { labelOf, leadsTo } from '#core/derive/menu.ts';
import { type TrailStep, trailOf } from '#core/derive/trail.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { ancestorsOf, childrenOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { escaped, scriptJson } from './html.ts';
import { type LiveView, type SitePlace, hrefOf, lockOf, pathOf, signInAddress, signOutForm } from './live-view.ts';
import { renderMenu } from './render-menus.ts';
import { renderSearchForm } from './search-form.ts';

/** A page of the site that stands in for one that is built in. */
export interface OwnPage {
  readonly title: string;
  readonly html: string;
}

/** Asks search engines to leave the page out. */
export const NO_INDEX = '<meta name="robots" content="noindex">';

/** What differs from page to page. `isSearch` where the page has a search field of its own. */
interface Frame {
  readonly title: string;
  readonly head: string;
  readonly body: string;
  readonly current: PageId | null;
  readonly isSearch?: boolean;
}

/** A whole page for visitors. `html` is the page's text, ready. */
export function renderPage(view: LiveView, page: PageId, html: string): string {
  const { site, place, derived } = view;
  const node = nodeAt(site, page);
  const { language } = site.settings;
  const title = textIn(node.title, language);
  const description = textIn(node.description, language);
  const row = derived.outline.rowOf.get(page)!;
  const address = derived.addresses[row]!;
  const trail = trailOf(site, page, derived);
  const isHome = page === derived.home;
  const head = [
    description === '' ? '' : `<meta name="description" content="${escaped(description)}">`,
    view.offered[row] === 1 ? '' : NO_INDEX,
    `<link rel="canonical" href="${escaped(place.origin + pathOf(place, address))}">`,
    `<script type="application/ld+json">${scriptJson(trailData(place, trail))}</script>`,
  ].join('');
  const body = [
    isHome ? '' : renderTrail(place, trail),
    `<main id="content"><h1>${escaped(title)}</h1>`,
    description === '' || html !== '' ? '' : `<p>${escaped(description)}</p>`,
    html,
    row === view.standingIn.get('account') ? renderOwnAccount(view) : '',
    isHome ? '' : renderSection(view, page),
    '</main>',
  ].join('');
  return renderFrame(view, {
    title: isHome ? site.settings.name : `${title} – ${site.settings.name}`,
    head,
    body,
    current: page,
  });
}

/** The page for addresses that lead nowhere. */
export function renderNotFound(view: LiveView, isGone = false, own: OwnPage | null = null): string {
  const { site, place } = view;
  if (own)
    return renderFrame(view, {
      title: `${own.title} – ${site.settings.name}`,
      head: NO_INDEX,
      body: `<main id="content"><h1>${escaped(own.title)}</h1>${own.html}<p><a href="${escaped(pathOf(place, '/'))}">Go to the home page</a></p></main>`,
      current: null,
    });
  const [heading, words] = isGone
    ? ['This page is no longer there', 'It was taken down for good, and no other page has taken its place.']
    : ['There is no page at this address', 'It may have moved, or the address may have a typing mistake.'];
  const body = `<main id="content"><h1>${heading}</h1>
<p>${words} The menu above lists the main pages.</p>
<p><a href="${escaped(pathOf(place, '/'))}">Go to the home page</a></p></main>`;
  return renderFrame(view, {
    title: `${isGone ? 'Gone' : 'Not found'} – ${site.settings.name}`,
    head: NO_INDEX,
    body,
    current: null,
  });
}

/** A whole page around what differs. */
export function renderFrame(view: LiveView, { title, head, body, current, isSearch = false }: Frame): string {
  const { site, place } = view;
  const name = escaped(site.settings.name);
  const side = renderMenu(view, 'side', current);
  return `<!doctype html>
<html lang="${escaped(site.settings.language)}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>${head}<link rel="stylesheet" href="${place.stylesheet}"></head>
<body>${view.walk ?? ''}<a class="skip" href="#content">Go to the text</a>
${renderMenu(view, 'utility', current)}<header class="head"><a class="name" href="${escaped(pathOf(place, '/'))}">${name}</a>${isSearch ? '' : renderSearchForm(place, '', 'head')}${renderMenu(view, 'header', current)}</header>
${side === '' ? body : `<div class="beside"><div>${body}</div>${side}</div>`}
<footer class="foot">${renderMenu(view, 'footer', current)}<p>${name}</p>${renderAccount(view)}</footer></body></html>`;
}

/** The way in and out; none where the site has no audiences. */
function renderAccount(view: LiveView): string {
  const { site, place, isSignedIn, walk } = view;
  if (site.settings.audiences.length === 0 || walk !== null) return '';
  return isSignedIn ? signOutForm(place) : `<p><a href="${escaped(signInAddress(view))}">Sign in</a></p>`;
}

/** What the account page shows below its text. It is the same for all who belong to the same audiences. */
function renderOwnAccount({ place, walk }: LiveView): string {
  if (walk !== null) return '<p>Here they sign out and choose another password.</p>';
  return `<section aria-label="Your account"><p><a href="${escaped(place.base)}/~password">Choose another password</a></p>${signOutForm(place)}</section>`;
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
function renderSection(view: LiveView, page: PageId): string {
  const { site, place, derived } = view;
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
      // What is behind a lock is named, and no more said of it.
      const description = view.locked[row] === 1 ? '' : textIn(node.description, site.settings.language);
      return [
        `<li><a href="${escaped(hrefOf(place, to))}">${text}${lockOf(view, id)}</a>${description === '' ? '' : `<p>${escaped(description)}</p>`}</li>`,
      ];
    });
    return items.length === 0 ? '' : `<ul>${items.join('')}</ul>`;
  };
  const pages = list(page);
  return pages === '' ? '' : `<nav aria-label="In this section" class="section"><h2>In this section</h2>${pages}</nav>`;
}

/** The form for a passphrase, in place of the page of a row. What is out of sight is not named. */
export function renderPassphrase(view: LiveView, row: number, to: string, isWrong = false): string {
  const { site, place, derived, locked, walk } = view;
  const title = locked[row] === 1 ? textIn(derived.outline.nodes[row]!.title, site.settings.language) : null;
  const lead = `<p>${title === null ? 'This page opens' : `‘${escaped(title)}’ opens`} with a passphrase. If you do not have it, ask whoever gave you the address.</p>`;
  const form =
    walk === null
      ? `<form method="post" action="${escaped(place.base)}/~passphrase" class="sign-in">
${isWrong ? '<p role="alert" class="wrong">This is not the passphrase. Check it, capital letters too, and try again.</p>' : ''}
<input type="hidden" name="to" value="${escaped(to)}">
<p><label>Passphrase<br><input type="password" name="passphrase" autocomplete="off" required></label></p>
<p><button>Open the page</button></p></form>`
      : '<p>Here visitors type it. Start the walk with the passphrases given to see what they see then.</p>';
  return renderFrame(view, {
    title: `Passphrase – ${site.settings.name}`,
    head: NO_INDEX,
    body: `<main id="content"><h1>Passphrase</h1>${lead}${form}</main>`,
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
}

/** The sign-in page; it stands in the place of a page with a lock, too. */
export function renderSignIn(view: LiveView, { page, to, email, isWrong }: SignIn, own: OwnPage | null = null): string {
  const { site, place } = view;
  const title = page === null ? null : textIn(nodeAt(site, page).title, site.settings.language);
  const lead =
    title === null
      ? view.isSignedIn
        ? '<p>You are signed in.</p>'
        : ''
      : view.isSignedIn
        ? `<p>‘${escaped(title)}’ is not open to you. If it should be, ask whoever looks after this site.</p>`
        : `<p>‘${escaped(title)}’ is open to ${escaped(audiencesFor(site, page!))}. Sign in to see it; if you have no account, ask whoever looks after this site.</p>`;
  const form = view.isSignedIn
    ? ''
    : `<form method="post" action="${escaped(place.base)}/sign-in" class="sign-in">
${isWrong ? '<p role="alert" class="wrong">The mail address and password do not belong together. Check both and try again.</p>' : ''}
<input type="hidden" name="to" value="${escaped(to)}">
<p><label>Mail address<br><input type="email" name="email" autocomplete="username" required value="${escaped(email)}"></label></p>
<p><label>Password<br><input type="password" name="password" autocomplete="current-password" required></label></p>
<p><button>Sign in</button></p></form>
<p><a href="${escaped(place.base)}/~password">Forgotten your password?</a></p>`;
  const heading = own?.title ?? (view.isSignedIn && title !== null ? 'You cannot open this page' : 'Sign in');
  return renderFrame(view, {
    title: `${heading} – ${site.settings.name}`,
    head: NO_INDEX,
    body: `<main id="content"><h1>${escaped(heading)}</h1>${own?.html ?? ''}${lead}${form}</main>`,
    current: null,
  });
}

/** The audiences that the nearest rule names which closes a page, in words. */
function audiencesFor(site: Site, page: PageId): string {
  const named = [nodeAt(site, page), ...ancestorsOf(site, page)].find(({ access }) => access?.only)?.access?.only ?? [];
  const names = named.map((id) => site.settings.audiences.find((one) => one.id === id)?.name ?? '').filter(Boolean);
  return names.length === 0 ? 'members' : names.join(' and ');
}
