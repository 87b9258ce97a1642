import type { Editor } from '@tiptap/core';
import type { MouseEvent, ReactNode } from 'react';
import { plainTextOf } from '#core/model/content.ts';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import { useContent } from '../api/content.ts';
import { Button } from '../ui/button.tsx';

/** A press on a button beside the text leaves the cursor in it. */
const stayInText = (event: MouseEvent) => event.preventDefault();

interface OtherVersionProps {
  readonly site: SiteKey;
  readonly content: ContentId;
  /** The editor that paragraphs are inserted into, at the cursor. */
  readonly editor: Editor;
  readonly onDone: () => void;
  /** What it is. */
  readonly children: ReactNode;
}

/** Another version of a text, paragraph by paragraph, until it is put away. */
export function OtherVersion({ site, content, editor, onDone, children }: OtherVersionProps) {
  const document = useContent(site, content);
  const blocks = (document?.content ?? []).filter((block) => plainTextOf({ type: 'doc', content: [block] }) !== '');
  return (
    <section aria-label="The other version" className="border-b border-rule bg-attention-soft px-3 py-2 text-small">
      <div className="flex items-start gap-2">
        <p role="status" className="flex-1 text-attention">
          {children}
        </p>
        <Button isTight onMouseDown={stayInText} onClick={onDone}>
          Put it away
        </Button>
      </div>
      <ul className="mt-2 flex max-h-40 flex-col gap-1 overflow-y-auto">
        {blocks.map((block, at) => (
          <li key={at} className="flex items-start gap-2">
            <p className="min-w-0 flex-1 whitespace-pre-wrap">{plainTextOf({ type: 'doc', content: [block] })}</p>
            <Button
              isTight
              onMouseDown={stayInText}
              onClick={() =>
                editor
                  .chain()
                  .focus()
                  .insertContent(block as object)
                  .run()
              }
            >
              Insert it
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
