import type { Express, Request, Response } from 'express';
import { siteKeySchema } from '#core/model/ids.ts';
import { fileContentSchema, fileTypeOf } from '#core/files/file.ts';
import type { FileStore } from '../library/file-store.ts';
import { isIcon, makeIcon } from '../library/icons.ts';
import { sendFile } from '../library/send-file.ts';
import { ANYBODY, type Askers } from './asking.ts';
import { FILES_STEP, type LiveFile, storedName } from './live-files.ts';
import type { LiveSites } from './live-sites.ts';

/** A file that somebody may have: where it is now, and whether everyone may. */
export interface FoundFile {
  readonly file: LiveFile;
  readonly isForAll: boolean;
  /** Whether search engines are offered a page that shows it. */
  readonly isOffered: boolean;
}

const FOR_EVER = 'public, max-age=31536000, immutable';
/** Whether somebody may still have it is asked each time. */
const FOR_ONE = 'private, no-cache';

/** Files of the live site, for those who can open a page that shows them; for others there is nothing at their address. */
export function mountFiles(
  app: Express,
  { sites, store, askers }: { readonly sites: LiveSites; readonly store: FileStore; readonly askers: Askers },
): void {
  app.get(`/:site/${FILES_STEP}/:content/:step`, async (request, response) => {
    const key = siteKeySchema.safeParse(request.params.site);
    const asking = await askers.find(request);
    const { content, step } = request.params as { content: string; step: string };
    const found = key.success ? await sites.file(key.data, content, asking) : undefined;
    if (!found) return noFile(response);
    const caching = found.isForAll && asking === ANYBODY ? FOR_EVER : FOR_ONE;
    await answerWithFile(request, response, { store, ...found, content, step, caching, base: `/${key.data!}` });
  });
}

interface Wanted {
  readonly store: FileStore;
  readonly file: LiveFile;
  readonly isOffered: boolean;
  readonly content: string;
  readonly step: string;
  readonly caching: string;
  readonly base: string;
}

/** Answers with a file, or leads to the one that has taken its place. */
export async function answerWithFile(
  request: Request,
  response: Response,
  { store, file, isOffered, content, step, caching, base }: Wanted,
): Promise<void> {
  if (file.content !== content) {
    // Sizes of another picture are others: the whole of it is what there is for sure.
    const to =
      /^[\w-]+\.\w+$/.test(step) && !/^(?:\d+|page)\./.test(step) ? step : `file.${fileTypeOf(file.type).ending}`;
    response
      .status(301)
      .set({ Location: `${base}/${FILES_STEP}/${file.content}/${to}`, 'Cache-Control': FOR_ONE })
      .end();
    return;
  }
  const stored = storedName(file, step);
  const isContent = fileContentSchema.safeParse(content);
  const isKnown = stored && isContent.success && file.isReady;
  if (isKnown && isIcon(stored[0]) && !(await store.get(isContent.data, stored[0])))
    await makeIcon(store, isContent.data, file, stored[0]);
  const bytes =
    stored && isContent.success ? await store.get(isContent.data, file.isReady ? stored[0] : 'original') : undefined;
  if (!stored || !bytes) return noFile(response);
  if (!isOffered) response.set('X-Robots-Tag', 'noindex');
  await sendFile(request, response, { bytes, type: stored[1], caching, tag: `${content}-${stored[0]}` });
}

export function noFile(response: Response): void {
  response
    .status(404)
    .set({ 'Cache-Control': 'no-store', 'X-Robots-Tag': 'noindex', 'X-Content-Type-Options': 'nosniff' })
    .type('text')
    .end('There is no file at this address.\n');
}
