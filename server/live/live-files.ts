import { seesSection } from '#core/derive/access.ts';
import { type FileContent, type FileId, fileTypeOf } from '#core/files/file.ts';
import { fileStep } from '#core/files/file-name.ts';
import { isIcon } from '../library/icons.ts';
import type { VisitorView } from '#core/derive/visitor-view.ts';
import type { RenderedPart } from '#core/model/content.ts';
import type { PageId } from '#core/model/ids.ts';
import type { SitePlace } from './live-view.ts';

/** A file as visitors' pages show it. */
export interface LiveFile {
  readonly id: FileId;
  readonly name: string;
  readonly type: string;
  readonly content: FileContent;
  /** In bytes. */
  readonly length: number;
  readonly width: number | null;
  readonly height: number | null;
  readonly pages: number | null;
  readonly hasPicture: boolean;
  readonly focalX: number;
  readonly focalY: number;
  readonly alternative: string;
  readonly isDecoration: boolean;
  /** Whether its sizes are there; those that wait are shown in walks alone, as they came. */
  readonly isReady: boolean;
}
/** Those that were not removed, by their ids; of a live site those that are ready. */
export type LiveFiles = ReadonlyMap<FileId, LiveFile>;

export const NO_FILES: LiveFiles = new Map();

/** Below a site: where its files have their addresses. No page has such a step. */
export const FILES_STEP = '~files';

/** The address of a file, made from its content, so that it may be kept for ever. @param width of a picture, with its form */
export const fileHref = ({ base, fileAt }: SitePlace, file: LiveFile, width?: string): string =>
  fileAt?.(file) ??
  `${base}/${FILES_STEP}/${file.content}/${width ?? fileStep(file.name, fileTypeOf(file.type).ending)}`;

/** The name in the store of what stands at a file's address, with its media type; null where nothing can. */
export function storedName(file: LiveFile, step: string): readonly [name: string, type: string] | null {
  const { ending, kind } = fileTypeOf(file.type);
  if (isIcon(step)) return kind === 'picture' ? [step, 'image/png'] : null;
  const form = /^(?:\d{1,5}|page)\.(avif|webp|jpg|png)$/.exec(step)?.[1];
  if (form !== undefined) return [step, form === 'jpg' ? 'image/jpeg' : `image/${form}`];
  // Whatever it is called now: an address that was given away stays good.
  return step.endsWith(`.${ending}`) ? ['whole', file.type] : null;
}

/** A page whose text shows a file, with the stretches of the text that do; null for all who get the page. */
export interface FileUse {
  readonly page: PageId;
  readonly parts: readonly RenderedPart[] | null;
  /** Where a shared section shows it: the stretches of the page's text that have this section; null for all who get the page. */
  readonly around: readonly RenderedPart[] | null;
}

/** Whether a visitor may have a file: they can open a page that shows it to them. */
export function mayHave({ derived, locked, asks, visitor, site }: VisitorView, uses: readonly FileUse[]): boolean {
  const isSeen = (parts: readonly RenderedPart[] | null): boolean =>
    parts === null || parts.some((part) => seesSection(part, visitor, site.settings));
  return uses.some(({ page, parts, around }) => {
    const row = derived.outline.rowOf.get(page);
    if (row === undefined || derived.hiddenBy[row] !== -1 || locked[row] === 1 || asks[row] === 1) return false;
    return isSeen(parts) && isSeen(around);
  });
}
