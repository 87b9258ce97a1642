import { useEffect, useEffectEvent, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { type TextDocument, contentIdOf } from '#core/model/content.ts';
import type { ContentId } from '#core/model/ids.ts';
import type { TextPlace } from '#core/model/text-place.ts';
import { isBlank } from '#core/sections/blank.ts';
import { rememberContent } from '../api/content.ts';
import type { SiteStore } from '../api/site-store.ts';
import { OtherVersion } from '../fields/other-version.tsx';
import { RichText, TextToCome } from '../fields/rich-text.tsx';
import { TextFrame, type WrittenTextProps, useTextEditor } from '../fields/text-frame.tsx';
import { jointExtensions } from './joint-extensions.ts';
import type { JointText } from './joint-text.ts';
import { useJointShown, useJointText } from './use-joint-text.ts';

interface JointRichTextProps extends WrittenTextProps {
  readonly store: SiteStore;
  readonly place: TextPlace;
  /** The text that the site has there. */
  readonly content: ContentId | null;
  /** Is told that somebody writes in it here, and that they have left it. */
  readonly onWriting?: (isWriting: boolean) => void;
}

/** A text in the editor, in which others may write at the same time; saved by itself. Whoever may not write in it reads it. */
export function JointRichText({ mayEdit, ...props }: JointRichTextProps) {
  const { subscribe, getShown } = props.store;
  // Through the eyes of somebody else nothing is changed.
  const isOwnView = useSyncExternalStore(subscribe, () => getShown().seenAs === null);
  return mayEdit && isOwnView ? <Written {...props} mayEdit /> : <RichText {...props} mayEdit={false} />;
}

function Written({ store, place, ...props }: JointRichTextProps) {
  const [beginning, setBeginning] = useState(0);
  // What was written in a document that is there no more, to take paragraphs from.
  const [left, setLeft] = useState<ContentId | null>(null);
  const { text, fault } = useJointText(store, place, beginning);
  if (fault !== '') return <p className="text-attention">{fault}</p>;
  if (text === null) return <TextToCome {...props} />;
  return (
    <JointEditor
      key={beginning}
      {...props}
      text={text}
      left={left}
      onPutAway={() => setLeft(null)}
      onAnew={(document) => {
        if (document !== null) {
          rememberContent(contentIdOf(document), document);
          setLeft(contentIdOf(document));
        }
        setBeginning(beginning + 1);
      }}
    />
  );
}

function JointEditor({
  text,
  content,
  left,
  onPutAway,
  onAnew,
  onWriting,
  ...props
}: Omit<JointRichTextProps, 'store' | 'place'> & {
  readonly text: JointText;
  readonly left: ContentId | null;
  readonly onPutAway: () => void;
  /** Is given what was written here and is nowhere in the site; null for nothing. */
  readonly onAnew: (document: TextDocument | null) => void;
}) {
  const { state, words } = useJointShown(text);
  const extensions = useMemo(() => jointExtensions(text), [text]);
  const editor = useTextEditor(props, { extensions });
  const whole = useRef<HTMLElement>(null);
  const tellWriting = useEffectEvent((isWriting: boolean) => onWriting?.(isWriting));
  useEffect(() => {
    const stop = text.onOwn(() => tellWriting(true));
    const now = () => {
      text.settle();
      tellWriting(false);
    };
    // What is set of a section is set in fields beside the text: they change it first with what they hold.
    const around = whole.current!;
    const leave = (event: FocusEvent) => {
      if (!around.contains(event.relatedTarget as Node | null)) window.setTimeout(now, 0);
    };
    around.addEventListener('focusout', leave);
    return () => {
      stop();
      around.removeEventListener('focusout', leave);
      tellWriting(false);
    };
  }, [text]);
  // What its place was given otherwise comes in too.
  const known = useRef(content);
  useEffect(() => {
    if (known.current !== content) text.catchUp();
    known.current = content;
  }, [text, content]);
  const beginAnew = useEffectEvent(() => {
    const document = editor.getJSON() as TextDocument;
    onAnew(text.hasUnsaved && !isBlank(document) ? document : null);
  });
  useEffect(() => {
    if (state === 'anew') beginAnew();
  }, [state]);
  return (
    <TextFrame {...props} editor={editor} whole={whole} marked={content}>
      {left !== null && (
        <OtherVersion site={props.site} content={left} editor={editor} onDone={onPutAway}>
          The text began anew while this was not saved. What you had written is kept here.
        </OtherVersion>
      )}
      {words !== '' && state !== 'anew' && (
        <p role="alert" className="border-b border-rule bg-attention-soft px-3 py-2 text-small text-attention">
          What is written here is not saved. {words}
        </p>
      )}
    </TextFrame>
  );
}
