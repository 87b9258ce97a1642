import { fieldsFor } from '../fields/values.ts';
import type { FileId } from '../files/file.ts';
import { ruleOf } from '../model/access.ts';
import type { PageId } from '../model/ids.ts';
import type { PageLabel } from '../model/page-label.ts';
import type { Site } from '../model/site.ts';
import { type Outline, outlineOf } from './outline.ts';

/** The pages that name files in fields of their kind: in any field, and in one that visitors see. */
export interface FilesInFields {
  readonly named: ReadonlyMap<FileId, readonly PageId[]>;
  readonly shown: ReadonlyMap<FileId, readonly PageId[]>;
}

const known = new WeakMap<Outline, { readonly labels: readonly PageLabel[]; readonly files: FilesInFields }>();

/** Which pages of a site name which files in their fields. It is derived, and known again while the tree and the labels are the same. */
export function filesInFields(site: Site): FilesInFields {
  const outline = outlineOf(site);
  const { labels } = site.settings;
  const before = known.get(outline);
  if (before?.labels === labels) return before.files;
  const named = new Map<FileId, PageId[]>();
  const shown = new Map<FileId, PageId[]>();
  const note = (files: Map<FileId, PageId[]>, file: FileId, page: PageId): void => {
    const pages = files.get(file) ?? [];
    if (pages.at(-1) !== page) pages.push(page);
    files.set(file, pages);
  };
  for (const { id, type, access, details } of outline.nodes) {
    if (type !== 'page' || details === null) continue;
    for (const field of fieldsFor(ruleOf({ access }).labels, labels)) {
      const file = (field.type === 'file' ? details[field.id] : undefined) as FileId | undefined;
      if (file === undefined) continue;
      note(named, file, id);
      if (field.isForVisitors) note(shown, file, id);
    }
  }
  const files = { named, shown };
  known.set(outline, { labels, files });
  return files;
}
