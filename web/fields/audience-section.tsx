import type { Editor } from '@tiptap/core';
import { Fragment, NodeRange } from '@tiptap/pm/model';
import { findWrapping } from '@tiptap/pm/transform';
import { type NodeViewProps, NodeViewContent, NodeViewWrapper, ReactNodeViewRenderer } from '@tiptap/react';
import { createContext, useContext } from 'react';
import { type AudienceId, SIGNED_OUT, SIGNED_OUT_NAME } from '#core/model/audience.ts';
import { AUDIENCE_SECTION, DETAIL, FACT, type SectionRule } from '#core/model/content.ts';
import { AudienceSection, textExtensions } from '#contract/rich-text.ts';
import { AudienceTicks } from '../ui/audience-ticks.tsx';
import { Button } from '../ui/button.tsx';
import { detailExtension } from './detail-in-text.tsx';
import { factExtension } from './fact-in-text.tsx';
import { DeletesAcross } from './delete-across.ts';
import { BoxHintsExtension } from './sections/box-hints.ts';
import { TalkedAboutExtension } from './talk/talked-about.ts';
import { inEditor } from './sections/editor-parts.ts';
import { OF_THE_DESK } from './page-look.ts';
import { Popover } from '../ui/popover.tsx';

export interface NamedAudience {
  readonly id: AudienceId;
  readonly name: string;
}

const Audiences = createContext<readonly NamedAudience[]>([]);
/** Tells the sections of an editor which audiences there are. */
export const SectionAudiences = Audiences.Provider;

/** What texts are made of, with sections that say whom they are for, and facts and values that show what they say. */
export const editorExtensions = [
  ...textExtensions.filter(({ name }) => ![AUDIENCE_SECTION, FACT, DETAIL].includes(name)).map(inEditor),
  factExtension,
  detailExtension,
  BoxHintsExtension,
  TalkedAboutExtension,
  DeletesAcross,
  AudienceSection.extend({ addNodeView: () => ReactNodeViewRenderer(SectionView) }),
];

/** Keeps the selected paragraphs, as wholes, for an audience. */
export function keepSection(editor: Editor, audience: AudienceId): void {
  editor
    .chain()
    .focus()
    .command(({ state, tr }) => {
      const { $from, $to } = state.selection;
      const { doc } = state;
      const range = new NodeRange(doc.resolve($from.before(1) + 1), doc.resolve($to.after(1) - 1), 0);
      const wrapping = findWrapping(range, state.schema.nodes[AUDIENCE_SECTION]!, { only: [audience], except: [] });
      if (!wrapping) return false;
      tr.wrap(range, wrapping);
      return true;
    })
    .run();
}

/** Gives a section to all who get the page: its paragraphs stay, without it. */
export function openSection(editor: Editor): void {
  editor
    .chain()
    .focus()
    .command(({ state, tr }) => {
      const { $from } = state.selection;
      const section = $from.node(1);
      if (section.type.name !== AUDIENCE_SECTION) return false;
      tr.replaceWith($from.before(1), $from.after(1), Fragment.from(section.content));
      return true;
    })
    .run();
}

/** A section in the editor: its paragraphs under a line that says whom they are for. */
function SectionView({ node, editor, updateAttributes }: NodeViewProps) {
  const audiences = useContext(Audiences);
  const { only, except } = node.attrs as SectionRule;
  const words = wordsOf(audiences, { only, except });
  return (
    <NodeViewWrapper as="section" aria-label={words} className="my-3 rounded-md border border-dashed border-edge">
      <div
        contentEditable={false}
        className={`${OF_THE_DESK} flex items-center gap-2 border-b border-rule px-2 text-small`}
      >
        <span className="min-w-0 flex-1 truncate text-attention">{words}</span>
        {editor.isEditable && (
          <Popover
            label="Whom the section is for"
            align="end"
            className="w-72 p-4"
            trigger={
              <Button look="quiet" isTight>
                Change
              </Button>
            }
          >
            <AudienceTicks
              audiences={audiences}
              all="All who can open the page"
              only={only}
              except={except}
              onSet={updateAttributes}
            />
          </Popover>
        )}
      </div>
      <NodeViewContent className="section-text px-2 py-1.5" />
    </NodeViewWrapper>
  );
}

function wordsOf(audiences: readonly NamedAudience[], { only, except }: SectionRule): string {
  const named = (ids: readonly AudienceId[]) =>
    ids
      .map((id) =>
        id === SIGNED_OUT ? SIGNED_OUT_NAME : (audiences.find((one) => one.id === id)?.name ?? 'an unknown audience'),
      )
      .join(' and ');
  const whom = only === null ? 'all who can open the page' : `${named(only)} only`;
  return except.length === 0 ? `For ${whom}` : `For ${whom}, not for ${named(except)}`;
}
