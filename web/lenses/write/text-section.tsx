import { type ComponentType, type ReactNode, useMemo } from 'react';
import { followAgain } from '#core/arrange/page-outlines.ts';
import { ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { isAsItsKind } from '#core/model/kind-outline.ts';
import { kindAmong } from '#core/model/page-label.ts';
import { type Sketch, sketchOf } from '#core/model/sketch.ts';
import { nodeAt } from '#core/model/site.ts';
import { BOXES } from '#core/sketch/box-types.ts';
import type { Edit } from '../../api/site-store.ts';
import { type BoxHints, NO_HINTS } from '../../fields/sections/box-hints.ts';
import { JointRichText } from '../../joint/joint-rich-text.tsx';
import { useTellWriting, useWriter } from '../../fields/use-writing.ts';
import { useTalkOnPage } from '../../talk/use-talk-on-page.ts';
import { WhyNot } from '../../workbench/allowing.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { toast } from '../../ui/toast.ts';

interface TextSectionProps {
  readonly page: PageId;
  /** What stands around the text where it is written in its place on the page. */
  readonly Around?: ComponentType<{ readonly children: ReactNode }>;
}

/** The page's text, in the editor; saved by itself. */
export function TextSection(props: TextSectionProps) {
  const { may, site } = useWorkbench();
  const { page } = props;
  // Whoever may not read it is told why, and the server keeps it.
  return may('read', page) || nodeAt(site, page).content === null ? (
    <OpenText {...props} />
  ) : (
    <WhyNot permission="read" at={page} />
  );
}

function OpenText({ page, Around }: TextSectionProps) {
  const { site, store, mayEdit } = useWorkbench();
  const writer = useWriter(store, page);
  const { onWrite, onLeave } = useTellWriting(store, page);
  const talk = useTalkOnPage(page, Around !== undefined);
  const sketch = sketchOf(site, nodeAt(site, page));
  const hints = useMemo(() => (sketch ? hintsOf(sketch) : NO_HINTS), [sketch]);
  const text = {
    site: site.key,
    content: nodeAt(site, page).content,
    name: 'Text',
    Around,
    mayEdit,
    audiences: site.settings.audiences,
    facts: site.settings.facts,
    hints,
    talk,
  };
  return (
    <div className="flex flex-col gap-1.5">
      <p
        role="status"
        className={writer === '' ? 'sr-only' : 'rounded-sm bg-attention-soft px-2 py-1 text-small text-attention'}
      >
        {writer !== '' && `${writer} is writing in this text now. What each of you writes is kept.`}
      </p>
      <OfItsKind page={page} isOnDesk={Around !== undefined} />
      <JointRichText
        {...text}
        store={store}
        place={{ of: 'page', id: page }}
        onWriting={(isWriting) => (isWriting ? onWrite() : onLeave())}
      />
    </div>
  );
}

/** What is said in each empty place of a text that the sketch of its page planned. */
const hintsOf = ({ variants }: Sketch): BoxHints =>
  new Map(
    variants.flatMap(({ boxes }) =>
      boxes.map(({ id, type, purpose, words }) => [
        id,
        [purpose === '' ? BOXES[type].name : purpose, words !== null && `about ${words} words`]
          .filter(Boolean)
          .join(', '),
      ]),
    ),
  );

/** Where a page has a kind with an outline: whether its text is that outline, or what would make it so. */
function OfItsKind({ page, isOnDesk }: { readonly page: PageId; readonly isOnDesk: boolean }) {
  const look = `text-small text-quiet ${isOnDesk ? 'px-4 pt-2' : ''}`;
  const { site, store, mayEdit, setBeside, run } = useWorkbench();
  const node = nodeAt(site, page);
  const kind = kindAmong(ruleOf(node).labels, site.settings.labels);
  if (kind?.pageOutline === undefined) return null;
  if (isAsItsKind(node, site.settings.labels))
    return (
      <p className={look}>
        This is the outline of ‘{kind.name}’. The page follows it until you write here.{' '}
        <button
          type="button"
          onClick={() => setBeside({ kind: 'labels', id: kind.id })}
          className="text-accent hover:underline"
        >
          Change the outline
        </button>
      </p>
    );
  if (!mayEdit) return null;
  const follow = () => {
    if (store.apply(followAgain(kind, [page]) as Edit[]) === null)
      toast(`The page has the outline of ‘${kind.name}’ again.`, {
        action: { label: 'Undo', onClick: () => run('undo') },
      });
  };
  return (
    <p className={look}>
      {node.content === null ? 'It has no text yet.' : `It differs from the outline of ‘${kind.name}’.`}{' '}
      <button type="button" onClick={follow} className="text-accent hover:underline">
        {node.content === null ? `Begin with the outline of ‘${kind.name}’` : 'Replace it with the outline'}
      </button>
    </p>
  );
}
