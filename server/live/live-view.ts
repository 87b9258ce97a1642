import type { VisitorView } from '#core/derive/visitor-view.ts';
import type { Sent } from '#core/forms/reading.ts';
import type { PageId } from '#core/model/ids.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import type { Screen } from '#core/model/look.ts';
import type { FormId } from '#core/model/site-form.ts';
import type { PageListSetting } from '#core/sections/page-list.ts';
import { type Html, type Markup, markup } from './html.ts';
import type { LiveFile, LiveFiles } from './live-files.ts';
import { siteWords } from './site-words.ts';

/** Where a site is: the path in front of its addresses, and its origin for absolute ones. */
export interface SitePlace {
  readonly base: string;
  readonly origin: string;
  readonly stylesheet: string;
  /** Fonts that pages need at once, so that none comes late and moves what is read; left out where they are not fetched before. */
  readonly fonts?: readonly string[];
  /** Where files of the library are, where that is not below the site. */
  readonly fileAt?: (file: LiveFile) => string;
  /** The screens that pages are shown on, where a walk tells; left out where browsers do. */
  readonly screen?: Screen | null;
  /** Whether the pages are files: then nobody can sign in. */
  readonly isStatic?: boolean;
}

/** A site for one kind of visitor: what they may open, and where the site is. */
export interface LiveView extends VisitorView {
  readonly place: SitePlace;
  /** The bar above the page of a walk; null for visitors. */
  readonly walk: Html | null;
  /** The files of the site's library. */
  readonly files: LiveFiles;
  /** What was asked for of the lists on the page, in the query of its address; left out where nothing can be. */
  readonly query?: URLSearchParams;
  /** Is told which lists stand on the page that is made; left out where nobody asks. */
  readonly listed?: (list: ShownList) => void;
  /** Left out where forms cannot be sent: in walks, and on pages that are files. */
  readonly forms?: FormsOnPage;
}

/** What the forms on a page are made with. */
export interface FormsOnPage {
  /** What each form bears, from which it is told when it was shown. */
  readonly stampOf: (form: FormId) => string;
  /** Is told which forms stand on the page. */
  readonly shown: (form: FormId) => void;
  /** One that was sent and not accepted, or that was accepted; null where none was. */
  readonly given: GivenForm | null;
  /** Whoever is signed in, where a form begins with what is known of them; null else. */
  readonly visitor: { readonly name: string; readonly email: string } | null;
}

/** A form as a visitor has sent it. */
export interface GivenForm {
  readonly form: FormId;
  /** Whether it was accepted: then it is answered in its place. */
  readonly isAccepted: boolean;
  readonly stamp: string;
  readonly sent: Sent;
  /** What is wrong, in words, by field; and what is told of the whole. */
  readonly faults: ReadonlyMap<FieldId, string>;
  readonly notice: string;
  /** Whether the field was filled in that people leave empty. */
  readonly isTrapped: boolean;
}

/** A list of pages as it was shown. */
export interface ShownList {
  /** The page that it stands on. */
  readonly page: PageId;
  readonly setting: PageListSetting;
  /** What it shows, in order. */
  readonly shown: readonly PageId[];
  /** Whether the clock changes it at midnight. */
  readonly isOfTheDay: boolean;
}

/** An address of the site as it stands in a link: percent-encoded, below the site's own path. */
export const pathOf = (place: SitePlace, address: string): string => place.base + encodeURI(address);

export const hrefOf = (place: SitePlace, to: string): string => (to.startsWith('/') ? pathOf(place, to) : to);

/** Behind an entry that the visitor sees and may not open. */
export function lockOf({ site, derived, locked, asks }: LiveView, page: PageId): Markup {
  const row = derived.outline.rowOf.get(page);
  if (row === undefined || locked[row] === 0) return '';
  const words = siteWords(site.settings.language);
  return markup` <small class="lock">${asks[row] === 1 ? words.asksForPassphrase : words.signInFirst}</small>`;
}

export const signOutForm = ({ site, place }: LiveView, words = siteWords(site.settings.language).signOut): Html =>
  markup`<form method="post" action="${place.base}/sign-out"><button>${words}</button></form>`;

/** The page of the site that stands in for signing in, or the built-in one. */
export function signInAddress({ place, derived, standingIn }: LiveView): string {
  const row = standingIn.get('sign-in');
  const own = row === undefined ? null : derived.addresses[row]!;
  return own === null ? `${place.base}/sign-in` : pathOf(place, own);
}

/** The page of the site that stands in for the account, or where another password is chosen. */
export function accountAddress({ place, derived, standingIn }: LiveView): string {
  const row = standingIn.get('account');
  const own = row === undefined ? null : derived.addresses[row]!;
  return own === null ? `${place.base}/~password` : pathOf(place, own);
}

/**
 * Whether the visitor may know of a row: it is open, or shows a lock. A page that asks for a passphrase and shows none is named nowhere:
 * not in lists, in links of texts, or as where a redirect leads.
 */
export const isNamed = ({ derived }: LiveView, row: number): boolean => derived.hiddenBy[row] === -1;

/** Whether a visitor has the page of a row itself, and not what stands in its place. */
export const isOpenAt = (view: LiveView, row: number): boolean =>
  isNamed(view, row) && view.locked[row] === 0 && view.asks[row] === 0;

/** Whether a row answers the visitor at its address: it is open, or shows a lock, or asks for a passphrase. */
export const isAnswered = (view: LiveView, row: number): boolean => isNamed(view, row) || view.asks[row] === 1;
