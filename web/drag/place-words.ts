import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Landing } from './drag-context.ts';

/** Where something would land, in words. */
export function placeWords({ nodes, settings }: Site, { place, isInside }: Landing): string {
  const title = (id: PageId) => `‘${textIn(nodes.get(id)!.title, settings.language)}’`;
  const { parent, after } = place;
  if (parent === null) return after === null ? 'First at the top level' : `At the top level, after ${title(after)}`;
  if (isInside) return `Inside ${title(parent)}, last`;
  return after === null ? `Inside ${title(parent)}, first` : `Inside ${title(parent)}, after ${title(after)}`;
}
