import type { ContentId } from '../model/ids.ts';
import { kindAmong } from '../model/page-label.ts';
import type { Site } from '../model/site.ts';
import type { TextPlace } from '../model/text-place.ts';
import type { Operation } from '../operations/operation.ts';
import { outlineOperations } from './page-outlines.ts';

/** What gives a place a text. @param content null for nothing */
export function writeText({ of, id }: TextPlace, content: ContentId | null): Operation {
  switch (of) {
    case 'page':
      return { name: 'page.set', page: id, fields: { content } };
    case 'notes':
      return { name: 'page.set', page: id, fields: { plan: { notes: content } } };
    case 'shared':
      return { name: 'shared.set', shared: id, fields: { content } };
    case 'outline':
      return { name: 'label.set', label: id, fields: { pageOutline: content } };
  }
}

/** What gives a place a text, and what follows it the same: pages follow the outline of their kind. */
export function writeTextAndFollow(site: Site, place: TextPlace, content: ContentId | null): Operation[] {
  const kind = place.of === 'outline' ? kindAmong([place.id], site.settings.labels) : null;
  return kind ? outlineOperations(site, kind, content) : [writeText(place, content)];
}
