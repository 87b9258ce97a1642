import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { LiveView, SitePlace } from './live-view.ts';
import { type Preview, logoOfPreview, previewHash } from './preview-picture.ts';

/** The step of a site's addresses below which the preview pictures of its pages are. */
export const PREVIEW_STEP = '~preview';

/** What the preview picture of a page is made of. */
export function previewOf({ site, files }: LiveView, page: PageId): Preview {
  const { searchTitle, title } = nodeAt(site, page);
  const { language, name, look } = site.settings;
  return {
    title: textIn(searchTitle, language) || textIn(title, language),
    name,
    look,
    logo: logoOfPreview(look, files),
  };
}

/** Where a page's preview picture is: the address holds a hash of what is on it, so that it may be kept for ever. */
export const previewAddress = ({ base }: SitePlace, page: PageId, preview: Preview): string =>
  `${base}/${PREVIEW_STEP}/${previewHash(preview)}/${page}.png`;
