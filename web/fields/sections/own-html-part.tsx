import { type ReactNodeViewProps, NodeViewWrapper } from '@tiptap/react';
import { OWN_HTML, leftOutOf } from '#core/sections/own-html.ts';
import { listOf } from '../../tree/words.ts';
import { TextArea } from '../../ui/field.tsx';
import { OF_THE_DESK } from '../page-look.ts';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const OWN_HTML_PART = editorPart(OWN_HTML.type, Code);

function Code({ attributes: { code }, set }: SettingsProps<{ readonly code: string }>) {
  const leftOut = leftOutOf(code).map((name) => `<${name}>`);
  return (
    <div className="w-full">
      <TextArea
        label="HTML"
        rows={6}
        maxLength={20_000}
        spellCheck={false}
        className="font-mono"
        value={code}
        hint={
          leftOut.length === 0
            ? 'Programs, styles, forms, pictures and headings are left out; a walk shows what stays.'
            : `Left out of it: ${listOf(leftOut)}.`
        }
        onChange={(event) => set({ code: event.target.value })}
      />
    </div>
  );
}

/** HTML of one's own while one writes: as it was written. */
export function OwnHtmlView({ node, selected }: ReactNodeViewProps) {
  const { code } = node.attrs as { readonly code: string };
  return (
    <NodeViewWrapper
      aria-label="HTML"
      className={`${OF_THE_DESK} rounded-md border border-dashed px-2 py-1.5 ${selected ? 'border-accent bg-accent-soft' : 'border-edge'}`}
    >
      <p className="text-small text-quiet">HTML</p>
      <pre className="max-h-60 overflow-auto font-mono text-small whitespace-pre-wrap">
        {code === '' ? 'Nothing yet.' : code}
      </pre>
    </NodeViewWrapper>
  );
}
