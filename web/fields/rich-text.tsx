import type { Editor } from '@tiptap/core';
import { EditorContent, useEditor, useEditorState } from '@tiptap/react';
import {
  Bold,
  Heading2,
  Heading3,
  Heading4,
  Info,
  Italic,
  Link2,
  MessageSquarePlus,
  List,
  ListOrdered,
  Quote,
  UsersRound,
} from 'lucide-react';
import {
  type ComponentType,
  type ReactNode,
  startTransition,
  useEffect,
  useEffectEvent,
  useRef,
  useState,
} from 'react';
import { toast } from 'sonner';
import { AUDIENCE_SECTION, type TextDocument, contentIdOf, headingsOf, pageLink } from '#core/model/content.ts';
import { isBlank } from '#core/sections/blank.ts';
import { withoutEmptyBoxes } from '#core/sketch/planned-boxes.ts';
import type { Fact } from '#core/model/fact.ts';
import type { About } from '#core/talk/thread.ts';
import type { ContentId, PageId, SiteKey } from '#core/model/ids.ts';
import { rememberContent, useContent } from '../api/content.ts';
import {
  type NamedAudience,
  SectionAudiences,
  editorExtensions,
  keepSection,
  openSection,
} from './audience-section.tsx';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { asText, pastedWords } from './pasted-html.ts';
import { useLatest } from '../ui/use-latest.ts';
import { PageField } from './page-field.tsx';
import { saysTheSame } from './says-the-same.ts';
import { OtherVersion } from './other-version.tsx';
import { InsertList } from './sections/insert-list.tsx';
import { type BoxHints, NO_HINTS, showHints } from './sections/box-hints.ts';
import { insertFiles, sendCarried } from './sections/insert-files.ts';
import { moveSection } from './sections/insert-section.ts';
import { ShowsShared } from './sections/shared-part.tsx';
import { ShownText } from './shown-text.tsx';
import { SectionBar } from './sections/section-bar.tsx';
import { InsertValue } from './detail-in-text.tsx';
import { TextFacts, insertFact } from './fact-in-text.tsx';
import { aboutSection, aboutSelection } from './talk/about-in-text.ts';
import { NOTHING_SAID, type TalkedAbout, showTalk, threadAt } from './talk/talked-about.ts';
import { ActionMenu } from '../ui/action-menu.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Choice, Radios, TextField } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { takeSelection } from './take-selection.ts';

const NO_AUDIENCES: readonly NamedAudience[] = [];
const NO_FACTS: readonly Fact[] = [];
const NO_TEXT: TextDocument = { type: 'doc' };
/** The room for the tools above a text that scrolls below them, in pixels. */
const BELOW_TOOLS = { top: 170, bottom: 40, left: 0, right: 0 };
/** So long after the last key the text is saved. */
const PAUSE_MS = 900;

interface RichTextProps {
  readonly site: SiteKey;
  readonly content: ContentId | null;
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
  /** Whether it is saved only when it is left, since much is set with it. */
  readonly isSavedOnLeaving?: boolean;
  /** What colleagues say about parts of it, and what shows one of these or begins another; left out where nobody talks about it. */
  readonly talk?: {
    readonly said: readonly TalkedAbout[];
    readonly onShow: (thread: string) => void;
    readonly onBegin: ((about: About) => void) | null;
  };
  /** Is told that somebody writes in it, and that they have left it. */
  readonly onWriting?: (isWriting: boolean) => void;
  /** Is given the new text, which the server has to be told, or null where nothing is left of it. */
  readonly onSave: (text: { readonly id: ContentId; readonly document: TextDocument } | null) => void;
}

/** The text that the editor began with or saved last, and the one that it was saved over until the page has it. */
interface Base {
  readonly id: ContentId | null;
  readonly over: ContentId | null | typeof NOTHING_SAVED;
}
const NOTHING_SAVED = Symbol('nothing saved');

/** Shared sections look as the text does in which they stand. */
const AsVisitors = (props: { readonly site: SiteKey; readonly content: ContentId }) => (
  <ShownText {...props} isAsVisitors />
);
const AsWritten = (props: { readonly site: SiteKey; readonly content: ContentId }) => (
  <ShownText {...props} isAsVisitors={false} />
);

/** A text that was fetched. */
interface Known {
  readonly content: ContentId | null;
  readonly document: TextDocument;
}

/** A text in the editor; saved by itself. */
export function RichText(props: RichTextProps) {
  const fetched = useContent(props.site, props.content);
  // While another text is fetched the editor stays as it is, with whoever writes in it.
  const [known, setKnown] = useState<Known | null>(null);
  if (fetched && known?.content !== props.content) setKnown({ content: props.content, document: fetched });
  // Making the editor takes as long as all else beside it: it comes after what is beside it shows.
  const [isItsTurn, setItsTurn] = useState(false);
  useEffect(() => startTransition(() => setItsTurn(true)), []);
  if (!known) return <p className="text-quiet">Fetching the text …</p>;
  if (!isItsTurn)
    return (
      <section
        aria-label={props.name}
        aria-busy
        className={`rounded-md border border-edge bg-raised ${props.isShort ? 'min-h-30' : 'min-h-54'}`}
      />
    );
  return <TextEditor {...props} {...known} />;
}

function TextEditor({
  site,
  content,
  document,
  name,
  mayEdit,
  isShort = false,
  Around,
  audiences = NO_AUDIENCES,
  facts = NO_FACTS,
  hints = NO_HINTS,
  isShared = false,
  isSavedOnLeaving = false,
  talk,
  onWriting,
  onSave,
}: RichTextProps & { readonly document: TextDocument }) {
  const [base, setBase] = useState<Base>({ id: content, over: NOTHING_SAVED });
  const written = useRef<Editor | null>(null);
  const talking = useLatest(talk);
  const editor = useEditor({
    onCreate: ({ editor: made }) => {
      written.current = made;
    },
    extensions: editorExtensions,
    content: document as object,
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
  const [other, setOther] = useState<ContentId | null>(null);
  const [isLinking, setLinking] = useState(false);
  const [isInserting, setInserting] = useState(false);
  const writing = useLatest(onWriting);
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
      writing()?.(true);
      window.clearTimeout(timer);
      if (!isSavedOnLeaving) timer = window.setTimeout(() => save(), PAUSE_MS);
    };
    const now = () => {
      window.clearTimeout(timer);
      save();
      writing()?.(false);
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
  }, [editor, writing, isSavedOnLeaving]);
  useEffect(() => showHints(editor, hints), [editor, hints]);
  const said = talk?.said ?? NOTHING_SAID;
  useEffect(() => showTalk(editor, said), [editor, said, base.id]);
  const begin = talk?.onBegin ?? null;
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
      {other !== null && <OtherVersion site={site} content={other} editor={editor} onDone={() => setOther(null)} />}
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

function EditorToolbar({
  editor,
  audiences,
  facts,
  onLink,
  isInserting,
  onInserting,
  isShared,
  onComment,
}: {
  readonly editor: Editor;
  readonly audiences: readonly NamedAudience[];
  readonly facts: readonly Fact[];
  readonly onLink: () => void;
  readonly isInserting: boolean;
  readonly onInserting: (isOpen: boolean) => void;
  readonly isShared: boolean;
  /** Begins a comment on what is selected; null where none can be made. */
  readonly onComment: ((about: About) => void) | null;
}) {
  const is = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now.isActive('bold'),
      italic: now.isActive('italic'),
      h2: now.isActive('heading', { level: 2 }),
      h3: now.isActive('heading', { level: 3 }),
      h4: now.isActive('heading', { level: 4 }),
      bullets: now.isActive('bulletList'),
      numbers: now.isActive('orderedList'),
      quote: now.isActive('blockquote'),
      link: now.isActive('link'),
      section: now.isActive(AUDIENCE_SECTION),
      words: !now.state.selection.empty,
    }),
  });
  const chain = () => editor.chain().focus();
  return (
    <div role="toolbar" aria-label="Set the text" className="flex flex-wrap border-b border-rule px-1 py-0.5">
      {editor.isEditable && (
        <InsertList editor={editor} hasShared={!isShared} isOpen={isInserting} onOpenChange={onInserting} />
      )}
      <Tool name="Bold" isOn={is.bold} press={() => chain().toggleBold().run()}>
        <Bold size={16} aria-hidden />
      </Tool>
      <Tool name="Italic" isOn={is.italic} press={() => chain().toggleItalic().run()}>
        <Italic size={16} aria-hidden />
      </Tool>
      <Tool name="Heading" isOn={is.h2} press={() => chain().toggleHeading({ level: 2 }).run()}>
        <Heading2 size={16} aria-hidden />
      </Tool>
      <Tool name="Smaller heading" isOn={is.h3} press={() => chain().toggleHeading({ level: 3 }).run()}>
        <Heading3 size={16} aria-hidden />
      </Tool>
      <Tool name="Smallest heading" isOn={is.h4} press={() => chain().toggleHeading({ level: 4 }).run()}>
        <Heading4 size={16} aria-hidden />
      </Tool>
      <Tool name="List" isOn={is.bullets} press={() => chain().toggleBulletList().run()}>
        <List size={16} aria-hidden />
      </Tool>
      <Tool name="Numbered list" isOn={is.numbers} press={() => chain().toggleOrderedList().run()}>
        <ListOrdered size={16} aria-hidden />
      </Tool>
      <Tool name="Quotation" isOn={is.quote} press={() => chain().toggleBlockquote().run()}>
        <Quote size={16} aria-hidden />
      </Tool>
      <Tool
        name={is.link ? 'Remove the link' : 'Make a link'}
        keys="Ctrl+K"
        isOn={is.link}
        press={() => (is.link ? chain().extendMarkRange('link').unsetLink().run() : onLink())}
      >
        <Link2 size={16} aria-hidden />
      </Tool>
      {(audiences.length > 0 || is.section) && (
        <Tool
          name={is.section ? 'Show the section to all again' : 'Keep the selected paragraphs for some audiences'}
          isOn={is.section}
          press={() => (is.section ? openSection(editor) : keepSection(editor, audiences[0]!.id))}
        >
          <UsersRound size={16} aria-hidden />
        </Tool>
      )}
      {facts.length > 0 && editor.isEditable && (
        <ActionMenu
          label="Insert a fact of the site"
          focusAfter={() => editor.commands.focus()}
          trigger={
            <button
              type="button"
              aria-label="Insert a fact of the site"
              title="Insert a fact of the site"
              className="inline-flex size-8 items-center justify-center rounded-md hover:bg-sunken"
            >
              <Info size={16} aria-hidden />
            </button>
          }
          actions={facts.map(({ id, name, text }) => ({
            words: text === '' ? `${name} (nothing yet)` : `${name}: ${text}`,
            run: () => insertFact(editor, id),
          }))}
        />
      )}
      {editor.isEditable && <InsertValue editor={editor} />}
      {onComment && (
        <IconButton
          name={is.words ? 'Comment on the selected words' : 'Comment: select words first'}
          disabled={!is.words}
          onClick={() => {
            const about = aboutSelection(editor);
            if (about !== null) onComment(about);
          }}
        >
          <MessageSquarePlus size={16} aria-hidden />
        </IconButton>
      )}
    </div>
  );
}

function Tool({
  name,
  isOn,
  keys,
  press,
  children,
}: {
  readonly name: string;
  readonly isOn: boolean;
  readonly keys?: string;
  readonly press: () => void;
  readonly children: ReactNode;
}) {
  return (
    <IconButton
      name={name}
      keys={keys}
      aria-pressed={isOn}
      onClick={press}
      className={isOn ? 'bg-accent-soft text-accent' : ''}
    >
      {children}
    </IconButton>
  );
}

/** Asks for the page of the site, or the outside address, that the selected words lead to; where none are selected, for the words too. */
function LinkDialog({ editor, onClose }: { readonly editor: Editor; readonly onClose: () => void }) {
  const { derived, site } = useWorkbench();
  const [kind, setKind] = useState<'page' | 'outside'>('page');
  const [page, setPage] = useState<PageId | ''>('');
  const [heading, setHeading] = useState('');
  const headings = headingsOf(useContent(site.key, site.nodes.get(page as PageId)?.content ?? null) ?? NO_TEXT);
  const [url, setUrl] = useState('https://');
  const [words, setWords] = useState('');
  const [isWordless] = useState(() => editor.state.selection.empty && !editor.isActive('link'));
  const title = page === '' ? '' : textIn(nodeAt(site, page).title, site.settings.language);
  const isAddress = /^(https?:\/\/[^\s]+|mailto:[^\s]+|tel:[+0-9 ()-]+)$/i.test(url.trim());
  const href =
    kind === 'outside'
      ? isAddress
        ? url.trim()
        : null
      : page === ''
        ? null
        : pageLink(page, heading === '' ? null : heading);
  const close = () => {
    onClose();
    window.setTimeout(() => editor.commands.focus(), 0);
  };
  return (
    <Dialog
      title={isWordless ? 'Make a link' : 'Link the selected words'}
      isOpen
      onClose={close}
      actions={
        <>
          <Button onClick={close}>Cancel</Button>
          <Button look="main" type="submit" form="link-words" disabled={href === null}>
            {isWordless ? 'Insert the link' : 'Link them'}
          </Button>
        </>
      }
    >
      <form
        id="link-words"
        className="flex flex-col gap-3 pb-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (href === null) return;
          const said = words.trim() || title || url.trim();
          if (isWordless)
            editor
              .chain()
              .insertContent({ type: 'text', text: said, marks: [{ type: 'link', attrs: { href } }] })
              .unsetMark('link')
              .run();
          else editor.chain().extendMarkRange('link').setLink({ href }).run();
          close();
        }}
      >
        {isWordless && (
          <TextField
            label="Words"
            value={words}
            maxLength={300}
            placeholder={title || 'At first the title of the page'}
            onChange={(event) => setWords(event.target.value)}
          />
        )}
        <Radios
          legend="They lead to"
          choices={[
            { value: 'page', words: 'A page of this site' },
            { value: 'outside', words: 'An outside address' },
          ]}
          value={kind}
          onChoose={setKind}
        />
        {kind === 'page' ? (
          <>
            <PageField
              label="Page"
              value={page}
              hint="The link follows the page wherever it moves."
              isOffered={(row) => derived.outline.nodes[row]!.type === 'page'}
              onChoose={(next) => {
                setPage(next as PageId);
                setHeading('');
              }}
            />
            {headings.length > 0 && (
              <Choice label="Where on the page" value={heading} onChange={(event) => setHeading(event.target.value)}>
                <option value="">The top of the page</option>
                {headings.map(({ words, anchor }) => (
                  <option key={anchor} value={anchor}>
                    {words}
                  </option>
                ))}
              </Choice>
            )}
          </>
        ) : (
          <TextField
            label="Address"
            value={url}
            hint="Starts with https://, mailto: or tel:"
            onChange={(event) => setUrl(event.target.value)}
          />
        )}
      </form>
    </Dialog>
  );
}
