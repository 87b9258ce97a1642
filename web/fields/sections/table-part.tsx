import type { Editor } from '@tiptap/core';
import { Button } from '../../ui/button.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const TABLE_PART = editorPart('table', Cells);

const STEPS: readonly { readonly words: string; readonly run: (editor: Editor) => void }[] = [
  { words: 'Row below', run: (editor) => editor.chain().focus().addRowAfter().run() },
  { words: 'Column after', run: (editor) => editor.chain().focus().addColumnAfter().run() },
  { words: 'Remove row', run: (editor) => editor.chain().focus().deleteRow().run() },
  { words: 'Remove column', run: (editor) => editor.chain().focus().deleteColumn().run() },
  { words: 'Header row', run: (editor) => editor.chain().focus().toggleHeaderRow().run() },
  { words: 'Header column', run: (editor) => editor.chain().focus().toggleHeaderColumn().run() },
];

function Cells({ editor }: SettingsProps) {
  return (
    <div role="group" aria-label="Rows and columns" className="flex flex-wrap gap-1">
      {STEPS.map(({ words, run }) => (
        <Button key={words} isTight onClick={() => run(editor)}>
          {words}
        </Button>
      ))}
    </div>
  );
}
