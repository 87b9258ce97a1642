import { useEditorState } from '@tiptap/react';
import { startTransition, useEffect, useEffectEvent, useRef, useState } from 'react';
import { type TextDocument, contentIdOf } from '#core/model/content.ts';
import type { ContentId } from '#core/model/ids.ts';
import { isBlank } from '#core/sections/blank.ts';
import { withoutEmptyBoxes } from '#core/sketch/planned-boxes.ts';
import { rememberContent, useContent } from '../api/content.ts';
import { editorExtensions } from './audience-section.tsx';
import { OtherVersion } from './other-version.tsx';
import { saysTheSame } from './says-the-same.ts';
import { TextFrame, type WrittenTextProps, useTextEditor } from './text-frame.tsx';

/** So long after the last key the text is saved. */
const PAUSE_MS = 900;

interface RichTextProps extends WrittenTextProps {
  readonly content: ContentId | null;
  /** Whether it is saved only when it is left, since much is set with it. */
  readonly isSavedOnLeaving?: boolean;
  /** Is given the new text, which the server has to be told, or null where nothing is left of it. */
  readonly onSave: (text: { readonly id: ContentId; readonly document: TextDocument } | null) => void;
}

/** The text that the editor began with or saved last, and the one that it was saved over until the page has it. */
interface Base {
  readonly id: ContentId | null;
  readonly over: ContentId | null | typeof NOTHING_SAVED;
}
const NOTHING_SAVED = Symbol('nothing saved');

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

/** A text in the editor, which one person writes at a time; saved by itself. */
export function RichText(props: RichTextProps) {
  const fetched = useContent(props.site, props.content);
  // While another text is fetched the editor stays as it is, with whoever writes in it.
  const [known, setKnown] = useState<Known | null>(null);
  if (fetched && known?.content !== props.content) setKnown({ content: props.content, document: fetched });
  // Making the editor takes as long as all else beside it: it comes after what is beside it shows.
  const [isItsTurn, setItsTurn] = useState(false);
  useEffect(() => startTransition(() => setItsTurn(true)), []);
  if (!known) return <p className="text-quiet">Fetching the text …</p>;
  if (!isItsTurn) return <TextToCome {...props} />;
  return <TextEditor {...props} {...known} />;
}

function TextEditor({
  content,
  document,
  isSavedOnLeaving = false,
  onSave,
  ...props
}: RichTextProps & { readonly document: TextDocument }) {
  const [base, setBase] = useState<Base>({ id: content, over: NOTHING_SAVED });
  const editor = useTextEditor(props, { extensions: editorExtensions, content: document as object });
  const [other, setOther] = useState<ContentId | null>(null);
  const isFocused = useEditorState({ editor, selector: ({ editor: now }) => now.isFocused });
  const whole = useRef<HTMLElement>(null);
  const shown = useRef(editor.state.doc);
  const save = useEffectEvent(() => {
    // What the editor makes of a text by itself is no change: it writes out what others leave to be understood.
    if (saysTheSame(editor.state.doc, shown.current)) return;
    shown.current = editor.state.doc;
    const written = withoutEmptyBoxes(editor.getJSON() as TextDocument);
    const next = isBlank(written) ? null : contentIdOf(written);
    if (next === base.id) return;
    setBase({ id: next, over: content });
    if (next !== null) rememberContent(next, written);
    onSave(next === null ? null : { id: next, document: written });
  });
  // Saved after a pause, when the editor and what belongs to it is left, and when the person goes to another page.
  useEffect(() => {
    shown.current = editor.state.doc;
    let timer: number | undefined;
    const later = () => {
      window.clearTimeout(timer);
      if (!isSavedOnLeaving) timer = window.setTimeout(() => save(), PAUSE_MS);
    };
    const now = () => {
      window.clearTimeout(timer);
      save();
    };
    editor.on('update', later);
    editor.on('blur', now);
    // What is set of a section is set in fields beside the text: they save first what they hold.
    const around = whole.current!;
    const leave = (event: FocusEvent) => {
      if (!around.contains(event.relatedTarget as Node | null)) window.setTimeout(now, 0);
    };
    around.addEventListener('focusout', leave);
    // Before the page is closed, and before it is asked whether all has been sent.
    window.addEventListener('beforeunload', now, { capture: true });
    return () => {
      editor.off('update', later);
      editor.off('blur', now);
      around.removeEventListener('focusout', leave);
      window.removeEventListener('beforeunload', now, { capture: true });
      now();
    };
  }, [editor, isSavedOnLeaving]);
  // Somebody else's text comes in only while nobody is writing here.
  const isOthers = content !== base.id && content !== base.over;
  const isBehind = isOthers && isFocused;
  const takeIn = useEffectEvent(() => {
    if (content === base.id && base.over !== NOTHING_SAVED) setBase({ id: content, over: NOTHING_SAVED });
    if (!isOthers || isFocused) return;
    setBase({ id: content, over: NOTHING_SAVED });
    editor.commands.setContent(document as object, { emitUpdate: false });
    shown.current = editor.state.doc;
  });
  useEffect(() => takeIn(), [content, isFocused]);
  const keepTheirs = useEffectEvent(() => isBehind && setOther(content));
  useEffect(() => void keepTheirs(), [content, isBehind]);
  return (
    <TextFrame {...props} editor={editor} whole={whole} marked={base.id}>
      {other !== null && (
        <OtherVersion site={props.site} content={other} editor={editor} onDone={() => setOther(null)} />
      )}
    </TextFrame>
  );
}
