import { Button } from '../../ui/button.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const COLUMNS_PART = editorPart('columns', HowMany);

const MOST = 3;

function HowMany({ editor }: SettingsProps) {
  const { $from } = editor.state.selection;
  const depth = Array.from({ length: $from.depth }, (_, at) => at + 1).find(
    (at) => $from.node(at).type.name === 'columns',
  );
  if (depth === undefined) return null;
  const count = $from.node(depth).childCount;
  const add = () =>
    editor
      .chain()
      .focus()
      .insertContentAt($from.end(depth), { type: 'column', content: [{ type: 'paragraph' }] })
      .run();
  const remove = () => {
    const from = $from.before(depth + 1);
    editor
      .chain()
      .focus()
      .deleteRange({ from, to: from + $from.node(depth + 1).nodeSize })
      .run();
  };
  return (
    <div className="flex gap-1">
      <Button isTight disabled={count >= MOST} onClick={add}>
        Add a column
      </Button>
      <Button isTight disabled={count <= 2} onClick={remove}>
        Remove this column
      </Button>
    </div>
  );
}
