import type { ComponentType, ReactNode } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { RichText } from '../../fields/rich-text.tsx';
import { useTellWriting, useWriter } from '../../fields/use-writing.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The page's text, in the editor; saved by itself. */
export function TextSection({
  page,
  Around,
}: {
  readonly page: PageId;
  /** What stands around the text where it is written in its place on the page. */
  readonly Around?: ComponentType<{ readonly children: ReactNode }>;
}) {
  const { site, store, mayEdit } = useWorkbench();
  const writer = useWriter(store, page);
  const { onWrite, onLeave } = useTellWriting(store, page);
  return (
    <div className="flex flex-col gap-1.5">
      <p
        role="status"
        className={writer === '' ? 'sr-only' : 'rounded-sm bg-attention-soft px-2 py-1 text-small text-attention'}
      >
        {writer !== '' && `${writer} is writing in this text now. What each of you writes is kept.`}
      </p>
      <RichText
        site={site.key}
        content={nodeAt(site, page).content}
        name="Text"
        Around={Around}
        mayEdit={mayEdit}
        audiences={site.settings.audiences}
        facts={site.settings.facts}
        onWriting={(isWriting) => (isWriting ? onWrite() : onLeave())}
        onSave={(text) =>
          store.apply([{ name: 'page.set', page, fields: { content: text?.id ?? null } }], text ? [text] : [])
        }
      />
    </div>
  );
}
