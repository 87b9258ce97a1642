import type { Outline } from '#core/derive/outline.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';

/** The nodes of a tree as options of a choice, each as deep as it stands; `isOffered` leaves some out, by row. */
export function PageOptions({
  outline,
  language,
  isOffered = () => true,
}: {
  readonly outline: Pick<Outline, 'nodes' | 'depth'>;
  readonly language: string;
  readonly isOffered?: (row: number, page: PageId) => boolean;
}) {
  return outline.nodes.map((node, row) =>
    isOffered(row, node.id) ? (
      <option key={node.id} value={node.id}>
        {'\u2003'.repeat(outline.depth[row]!) + textIn(node.title, language)}
      </option>
    ) : null,
  );
}
