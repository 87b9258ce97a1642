import type { Editor } from '@tiptap/core';
import { type NodeViewProps, NodeViewWrapper, ReactNodeViewRenderer } from '@tiptap/react';
import { createContext, useContext } from 'react';
import { FACT } from '#core/model/content.ts';
import type { Fact } from '#core/model/fact.ts';
import { FactInText } from '#contract/rich-text.ts';

const Facts = createContext<readonly Fact[]>([]);
/** Tells an editor which facts the site has. */
export const TextFacts = Facts.Provider;

/** A fact in the editor shows what it says now. */
export const factExtension = FactInText.extend({ addNodeView: () => ReactNodeViewRenderer(FactView) });

/** Puts a fact where the writing is. */
export const insertFact = (editor: Editor, id: Fact['id']): void =>
  void editor.chain().focus().insertContent({ type: FACT, attrs: { id } }).run();

function FactView({ node }: NodeViewProps) {
  const fact = useContext(Facts).find(({ id }) => id === node.attrs.id);
  const words = !fact ? 'a fact that is not there' : fact.text === '' ? `${fact.name}: nothing yet` : fact.text;
  return (
    <NodeViewWrapper
      as="span"
      title={fact ? `${fact.name}, a fact of the site` : 'This fact was removed. Visitors see nothing here.'}
      className={`rounded-sm px-1 ${fact && fact.text !== '' ? 'bg-accent-soft' : 'bg-attention-soft text-attention'}`}
    >
      {words}
    </NodeViewWrapper>
  );
}
