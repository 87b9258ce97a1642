import type { Html } from './html.ts';
import type { LiveView } from './live-view.ts';
import { withPageLinks } from './text-links.ts';
import { withFiles } from './with-files.ts';

/** A text as it was rendered when it was saved, with the files that it shows, and its links as addresses, for a visitor. */
export const textFor = (html: string, view: LiveView): Html => withPageLinks(withFiles(html, view), view);
