import { type Membership, accessReason, passphrasesIn } from '#core/derive/access.ts';
import { EVERYONE, closureOf } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import { sound } from './html.ts';
import type { LiveFile, LiveFiles } from './live-files.ts';
import { renderPage } from './render-page.ts';

/** Where the text stands in the frame of a page. */
const SLOT = '<slot></slot>';

/**
 * What stands around the text of a page of the draft: the body of the page as somebody has it who can open it, with a slot in place
 * of the text, and without programs.
 * @param at in milliseconds since 1970 @param files those of the library, and where the workbench gets them
 */
export function pageFrame(
  site: Site,
  page: PageId,
  at: number,
  files: LiveFiles,
  fileAt: (file: LiveFile) => string,
): string {
  const member = whoOpens(site, page, at);
  const view = {
    ...visitorView(site, member, at, !member.has(EVERYONE)),
    place: { base: `/${site.key}`, origin: '', stylesheet: '', fileAt },
    walk: null,
    files,
  };
  const { text } = renderPage(view, page, sound(SLOT));
  const body = text.slice(text.indexOf('<body>') + '<body>'.length, text.lastIndexOf('</body>'));
  return body.replace(/<script\b[^>]*>[^<]*<\/script>/g, '');
}

/** Somebody who can open the page; everyone where nobody can. */
function whoOpens(site: Site, page: PageId, at: number): Membership {
  const { audiences } = site.settings;
  const passphrases = passphrasesIn(site);
  const all = [EVERYONE, ...audiences.map(({ id }) => id)].map(
    (one): Membership => new Set([...closureOf(audiences, [one]), ...passphrases]),
  );
  return all.find((one) => accessReason(site, page, one, at).opens) ?? all[0]!;
}
