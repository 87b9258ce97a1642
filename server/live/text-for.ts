import type { Html } from './html.ts';
import type { LiveView } from './live-view.ts';
import { withPageLinks } from './text-links.ts';
import { withFrames } from './with-frames.ts';
import { withFiles } from './with-files.ts';

/** A text as it was rendered when it was saved, with the files and frames that it shows, and its links as addresses, for a visitor. */
export const textFor = (html: string, view: LiveView): Html =>
  withPageLinks(withFrames(withFiles(html, view), view), view);
