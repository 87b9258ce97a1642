import type { Editor } from '@tiptap/core';
import { EditorContent, type UseEditorOptions, useEditor } from '@tiptap/react';
import { type ComponentType, type ReactNode, type RefObject, useEffect, useRef, useState } from 'react';
import type { Fact } from '#core/model/fact.ts';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import type { About } from '#core/talk/thread.ts';
import { useLatest } from '../ui/use-latest.ts';
import { type NamedAudience, SectionAudiences } from './audience-section.tsx';
import { TextFacts } from './fact-in-text.tsx';
import { asText, pastedWords } from './pasted-html.ts';
import { type BoxHints, NO_HINTS, showHints } from './sections/box-hints.ts';
import { insertFiles, sendCarried } from './sections/insert-files.ts';
import { moveSection } from './sections/insert-section.ts';
import { SectionBar } from './sections/section-bar.tsx';
import { ShowsShared } from './sections/shared-part.tsx';
import { ShownText } from './shown-text.tsx';
import { takeSelection } from './take-selection.ts';
import { aboutSection } from './talk/about-in-text.ts';
import { NOTHING_SAID, type TalkedAbout, showTalk, threadAt } from './talk/talked-about.ts';
import { EditorToolbar, LinkDialog } from './text-tools.tsx';
import { toast } from '../ui/toast.ts';

const NO_AUDIENCES: readonly NamedAudience[] = [];
const NO_FACTS: readonly Fact[] = [];
/** The room for the tools above a text that scrolls below them, in pixels. */
const BELOW_TOOLS = { top: 170, bottom: 40, left: 0, right: 0 };

/** What is said of a text that is written, however it is saved. */
export interface WrittenTextProps {
  readonly site: SiteKey;
  /** What the text is, for those who do not see it. */
  readonly name: string;
  readonly mayEdit: boolean;
  readonly isShort?: boolean;
  /** What stands around the text where it is written in its place on the page; its look is the page's then. */
  readonly Around?: ComponentType<{ readonly children: ReactNode }>;
  /** The audiences that sections can be kept for; left out where a text has no such sections. */
  readonly audiences?: readonly NamedAudience[];
  /** The facts of the site that the text can name; left out where it names none. */
  readonly facts?: readonly Fact[];
  /** What the empty places of the text are for that a sketch planned. */
  readonly hints?: BoxHints;
  /** Whether it is a shared section, in which no other one stands. */
  readonly isShared?: boolean;
  /** What colleagues say about parts of it, and what shows one of these or begins another; left out where nobody talks about it. */
  readonly talk?: {
    readonly said: readonly TalkedAbout[];
    readonly onShow: (thread: string) => void;
    readonly onBegin: ((about: About) => void) | null;
  };
}

/** Shared sections look as the text does in which they stand. */
const AsVisitors = (props: { readonly site: SiteKey; readonly content: ContentId }) => (
  <ShownText {...props} isAsVisitors />
);
const AsWritten = (props: { readonly site: SiteKey; readonly content: ContentId }) => (
  <ShownText {...props} isAsVisitors={false} />
);

/** An editor of a text. @param parts what it is made of, and what it says at first */
export function useTextEditor(
  { site, name, mayEdit, isShort = false, Around, talk }: WrittenTextProps,
  parts: Pick<UseEditorOptions, 'extensions' | 'content'>,
): Editor {
  const written = useRef<Editor | null>(null);
  const talking = useLatest(talk);
  return useEditor({
    ...parts,
    onCreate: ({ editor: made }) => {
      written.current = made;
    },
    editable: mayEdit,
    immediatelyRender: true,
    editorProps: {
      // The tools stay in sight above the text: where one writes is kept clear of them.
      ...(Around && { scrollMargin: BELOW_TOOLS, scrollThreshold: BELOW_TOOLS }),
      transformPastedHTML: (html) => {
        const pasted = asText(html);
        // They are sent once they stand in the text.
        window.setTimeout(() => sendCarried(written.current!, site, pasted.carried), 0);
        const words = pastedWords(pasted);
        if (words !== null) toast(words, { duration: 10_000 });
        return pasted.html;
      },
      handleClick: (_view, _place, event) => {
        const thread = threadAt(event.target as Element);
        if (thread !== null) talking()?.onShow(thread);
        return false;
      },
      handlePaste: (_, event) => {
        const files = [...(event.clipboardData?.files ?? [])];
        const hasText = event.clipboardData?.types.some((type) => type.startsWith('text/')) === true;
        if (files.length === 0 || hasText) return false;
        insertFiles(written.current!, site, files);
        return true;
      },
      handleDrop: (view, event) => {
        const files = [...(event.dataTransfer?.files ?? [])];
        if (files.length === 0) return false;
        event.preventDefault();
        const at = view.posAtCoords({ left: event.clientX, top: event.clientY });
        if (at) written.current!.commands.setTextSelection(at.pos);
        insertFiles(written.current!, site, files);
        return true;
      },
      attributes: {
        class: `text-of-page ${isShort ? 'is-short' : ''} ${Around ? 'as-visitors' : ''}`,
        'aria-label': name,
        role: 'textbox',
        'aria-multiline': 'true',
      },
    },
  });
}

/** The place of a text that is written: its tools, what stands above it, and the text. */
export function TextFrame({
  editor,
  name,
  mayEdit,
  Around,
  audiences = NO_AUDIENCES,
  facts = NO_FACTS,
  hints = NO_HINTS,
  isShared = false,
  talk,
  whole,
  marked,
  children,
}: WrittenTextProps & {
  readonly editor: Editor;
  readonly whole?: RefObject<HTMLElement | null>;
  /** Changes where what is talked about is to be looked for anew. */
  readonly marked: unknown;
  /** What stands between the tools and the text. */
  readonly children?: ReactNode;
}) {
  const [isLinking, setLinking] = useState(false);
  const [isInserting, setInserting] = useState(false);
  useEffect(() => showHints(editor, hints), [editor, hints]);
  const said = talk?.said ?? NOTHING_SAID;
  useEffect(() => showTalk(editor, said), [editor, said, marked]);
  const begin = talk?.onBegin ?? null;
  return (
    // In a text the key for commands makes a link, and two more are for sections.
    <section
      ref={whole}
      aria-label={name}
      onKeyDownCapture={(event) => {
        if (!mayEdit) return;
        const isHeld = event.ctrlKey || event.metaKey;
        if (isHeld || event.altKey) takeSelection(editor);
        if (isHeld && event.key.toLowerCase() === 'k') setLinking(true);
        else if (isHeld && event.key === 'Enter') setInserting(true);
        else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
          moveSection(editor, event.key === 'ArrowUp' ? -1 : 1);
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
      className={Around ? '' : 'rounded-md border border-edge bg-raised focus-within:border-accent'}
    >
      {/* In a long text the tools stay in sight. */}
      <div className={`sticky top-0 z-10 bg-raised ${Around ? 'mb-4 border-b border-rule' : 'rounded-t-md'}`}>
        <EditorToolbar
          editor={editor}
          audiences={audiences}
          facts={facts}
          onLink={() => setLinking(true)}
          isInserting={isInserting}
          onInserting={setInserting}
          isShared={isShared}
          onComment={begin}
        />
        {mayEdit && (
          <SectionBar
            editor={editor}
            hasShared={!isShared}
            onComment={begin && ((type) => begin(aboutSection(editor, type)))}
          />
        )}
      </div>
      {isLinking && <LinkDialog editor={editor} onClose={() => setLinking(false)} />}
      {children}
      <SectionAudiences value={audiences}>
        <TextFacts value={facts}>
          <ShowsShared value={isShared ? null : Around ? AsVisitors : AsWritten}>
            {Around ? (
              <Around>
                <EditorContent editor={editor} />
              </Around>
            ) : (
              <EditorContent editor={editor} className="px-3 py-2.5" />
            )}
          </ShowsShared>
        </TextFacts>
      </SectionAudiences>
    </section>
  );
}
