import type { StandsIn } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import type { Html } from './html.ts';
import { type LiveView } from './live-view.ts';
import { withDetails, withFieldsOfPage } from './details-in-texts.ts';
import { withForms } from './forms.ts';
import { withPageLists } from './page-lists.ts';
import {
  type OwnPage,
  type SignIn,
  renderNotFound,
  renderPage,
  renderPassphrase,
  renderSignIn,
} from './render-page.ts';

/** A text with what is in it for whoever reads it: values of fields, its lists of pages, and its forms. */
export const withParts = (text: Html | '', view: LiveView, page: PageId): Html | '' =>
  withForms(withPageLists(withFieldsOfPage(withDetails(text, view, page), view, page), view, page), view, page);

/** A page's text, as the visitor has it, by the id of its content. */
export type TextOf = (content: string) => Promise<Html>;

/** What visitors get at a page that is not out of sight. */
export interface PageAnswer {
  /** 200; 401 for a locked entry, 403 where the visitor is signed in already. */
  readonly status: 200 | 401 | 403;
  readonly html: Html;
}

/** The answer at a row: the page, or the page that stands in its place where the visitor may not open it. `to` is its address. */
export async function answerAtRow(view: LiveView, row: number, to: string, textOf: TextOf): Promise<PageAnswer> {
  const { derived, locked, isSignedIn, standingIn } = view;
  const node = derived.outline.nodes[row]!;
  if (view.asks[row] === 1) return { status: 401, html: renderPassphrase(view, row, to) };
  const given = { page: null, to: '/', email: '', isWrong: false, done: null };
  if (locked[row] === 1)
    return { status: isSignedIn ? 403 : 401, html: await signInPage(view, { ...given, page: node.id, to }, textOf) };
  if (row === standingIn.get('sign-in')) return { status: 200, html: await signInPage(view, given, textOf) };
  if (row === standingIn.get('account') && !isSignedIn)
    return { status: 401, html: await signInPage(view, { ...given, to }, textOf) };
  const html = node.content === null ? '' : await textOf(node.content);
  return { status: 200, html: renderPage(view, node.id, withParts(html, view, node.id)) };
}

/** The sign-in page, or for somebody who is signed in the one that says that they may not open it; the site's own where it has one. */
export async function signInPage(view: LiveView, signIn: SignIn, textOf: TextOf): Promise<Html> {
  const isRefused = view.isSignedIn && signIn.page !== null;
  return renderSignIn(view, signIn, await ownPage(view, isRefused ? 'no-access' : 'sign-in', textOf));
}

/** The page for addresses that lead nowhere, with the rows of the pages nearest to it; the site's own where it has one. */
export const notFoundPage = async (view: LiveView, near: readonly number[], textOf: TextOf): Promise<Html> =>
  renderNotFound(view, { isGone: false, near, own: await ownPage(view, 'not-found', textOf) });

async function ownPage(view: LiveView, standsIn: StandsIn, textOf: TextOf): Promise<OwnPage | null> {
  const row = view.standingIn.get(standsIn);
  if (row === undefined) return null;
  const { id, title, content } = view.derived.outline.nodes[row]!;
  return {
    title: textIn(title, view.site.settings.language),
    html: content === null ? '' : withParts(await textOf(content), view, id),
  };
}
