import { startTransition, useEffect, useEffectEvent, useState } from 'react';
import type { TextDocument } from '#core/model/content.ts';
import type { ContentId } from '#core/model/ids.ts';
import { useContent } from '../api/content.ts';
import { editorExtensions } from './audience-section.tsx';
import { TextFrame, type WrittenTextProps, useTextEditor } from './text-frame.tsx';

interface RichTextProps extends WrittenTextProps {
  readonly content: ContentId | null;
}

/** A text that was fetched. */
interface Known {
  readonly content: ContentId | null;
  readonly document: TextDocument;
}

/** What stands in a text's place until it is there. */
export const TextToCome = ({ name, isShort = false }: Pick<WrittenTextProps, 'name' | 'isShort'>) => (
  <section
    aria-label={name}
    aria-busy
    className={`rounded-md border border-edge bg-raised ${isShort ? 'min-h-30' : 'min-h-54'}`}
  />
);

/** A text as the editor shows it, to be read. */
export function RichText(props: RichTextProps) {
  const fetched = useContent(props.site, props.content);
  // While another text is fetched the one before stays.
  const [known, setKnown] = useState<Known | null>(null);
  if (fetched && known?.content !== props.content) setKnown({ content: props.content, document: fetched });
  // Making the editor takes as long as all else beside it: it comes after what is beside it shows.
  const [isItsTurn, setItsTurn] = useState(false);
  useEffect(() => startTransition(() => setItsTurn(true)), []);
  if (!known) return <p className="text-quiet">Fetching the text …</p>;
  if (!isItsTurn) return <TextToCome {...props} />;
  return <ShownInEditor {...props} {...known} />;
}

function ShownInEditor({ content, document, ...props }: RichTextProps & Known) {
  const editor = useTextEditor(props, { extensions: editorExtensions, content: document as object });
  const show = useEffectEvent(() => editor.commands.setContent(document as object, { emitUpdate: false }));
  useEffect(() => void show(), [content]);
  return <TextFrame {...props} editor={editor} marked={content} />;
}
