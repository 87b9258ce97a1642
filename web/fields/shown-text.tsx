import { EditorContent, useEditor } from '@tiptap/react';
import { useEffect } from 'react';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import type { TextDocument } from '#core/model/content.ts';
import { useContent } from '../api/content.ts';
import { editorExtensions } from './audience-section.tsx';
import { ShowsShared } from './sections/shared-part.tsx';

interface ShownTextProps {
  readonly site: SiteKey;
  readonly content: ContentId;
  /** Whether it stands in a text that looks as visitors have it. */
  readonly isAsVisitors: boolean;
}

/** A text as the editor shows it, to be read alone. No shared section stands within another, so one that names itself ends there. */
export function ShownText(props: ShownTextProps) {
  const document = useContent(props.site, props.content);
  return document ? <Shown key={props.content} document={document} isAsVisitors={props.isAsVisitors} /> : null;
}

function Shown({ document, isAsVisitors }: { readonly document: TextDocument; readonly isAsVisitors: boolean }) {
  const editor = useEditor({
    extensions: editorExtensions,
    content: document as object,
    editable: false,
    immediatelyRender: true,
    editorProps: {
      attributes: {
        role: 'group',
        class: `text-of-page is-short ${isAsVisitors ? 'as-visitors is-within' : ''}`,
        style: 'padding: 0; min-height: 0',
      },
    },
  });
  // What is shown within another text takes no keys.
  useEffect(() => editor.view.dom.removeAttribute('tabindex'), [editor]);
  return (
    <ShowsShared value={null}>
      <EditorContent editor={editor} />
    </ShowsShared>
  );
}
