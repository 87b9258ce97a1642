import type { Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';
import {
  Bold,
  Heading2,
  Heading3,
  Heading4,
  Info,
  Italic,
  Link2,
  List,
  ListOrdered,
  MessageSquarePlus,
  Quote,
  UsersRound,
} from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { AUDIENCE_SECTION, type TextDocument, headingsOf, pageLink } from '#core/model/content.ts';
import type { Fact } from '#core/model/fact.ts';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { About } from '#core/talk/thread.ts';
import { useContent } from '../api/content.ts';
import { ActionMenu } from '../ui/action-menu.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Choice, Radios, TextField } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { type NamedAudience, keepSection, openSection } from './audience-section.tsx';
import { InsertValue } from './detail-in-text.tsx';
import { insertFact } from './fact-in-text.tsx';
import { PageField } from './page-field.tsx';
import { InsertList } from './sections/insert-list.tsx';
import { aboutSelection } from './talk/about-in-text.ts';

const NO_TEXT: TextDocument = { type: 'doc' };

/** The tools of a text, in a row above it. */
export function EditorToolbar({
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
  // A text that is only read has nothing to be set.
  if (!editor.isEditable && onComment === null) return null;
  return (
    <div role="toolbar" aria-label="Set the text" className="flex flex-wrap border-b border-rule px-1 py-0.5">
      {editor.isEditable && (
        <>
          <InsertList editor={editor} hasShared={!isShared} isOpen={isInserting} onOpenChange={onInserting} />
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
          {facts.length > 0 && (
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
          <InsertValue editor={editor} />
        </>
      )}
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
export function LinkDialog({ editor, onClose }: { readonly editor: Editor; readonly onClose: () => void }) {
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
