import { z } from 'zod';
import { topmost } from '#core/arrange/arrange.ts';
import { writeIndentedList } from '#core/formats/indented-list.ts';
import { pageIdSchema, siteKeySchema } from '#core/model/ids.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, branchOf } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';

const clipSchema = z.object({
  site: siteKeySchema,
  siteName: z.string(),
  pages: z.array(pageIdSchema).min(1),
  kind: z.enum(['copy', 'cut']),
  /** The same as an indented list: what other programs paste, and how a paste is known to be of this clip. */
  text: z.string(),
});
/** Pages that were copied or cut, to be pasted here or in another site. */
export type Clip = z.infer<typeof clipSchema>;

const KEY = 'spur.clip';

/** Pages as a clip, with all that stands below them in its text. */
export function makeClip(site: Site, pages: readonly PageId[], kind: Clip['kind']): Clip {
  const tops = topmost(site, pages);
  const entries = tops.flatMap((top) => {
    const depths = new Map<PageId, number>();
    return branchOf(site, top).map((id) => {
      const node = site.nodes.get(id)!;
      const depth = id === top ? 0 : depths.get(node.parent!)! + 1;
      depths.set(id, depth);
      return { title: textIn(node.title, site.settings.language), depth };
    });
  });
  return { site: site.key, siteName: site.settings.name, pages: tops, kind, text: writeIndentedList(entries) };
}

/** Keeps the clip for all of the person's tabs. Where the browser keeps nothing, it holds for this tab. */
export function keepClip(clip: Clip | null): void {
  try {
    if (clip) localStorage.setItem(KEY, JSON.stringify(clip));
    else localStorage.removeItem(KEY);
  } catch {
    // A browser that keeps nothing for sites: the clipboard's own text is still there.
  }
}

export function keptClip(): Clip | null {
  try {
    const parsed = clipSchema.safeParse(JSON.parse(localStorage.getItem(KEY) ?? 'null'));
    return parsed.success ? parsed.data : null;
  } catch {
    return null;
  }
}
