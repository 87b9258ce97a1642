import type { Editor } from '@tiptap/core';
import { type NodeViewProps, NodeViewWrapper, ReactNodeViewRenderer } from '@tiptap/react';
import { TextCursorInput } from 'lucide-react';
import { useState } from 'react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { detailIn, fieldsFor, maybeUsedField } from '#core/fields/values.ts';
import { type LabelId, ruleOf } from '#core/model/access.ts';
import { DETAIL } from '#core/model/content.ts';
import type { PageId } from '#core/model/ids.ts';
import type { FieldId, KindField } from '#core/model/kind-field.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { DetailInText } from '#contract/rich-text.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/field.tsx';
import { Popover } from '../ui/popover.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { useTextOfKind } from './text-of-kind.ts';
import { useFieldContext } from './details/use-field-context.ts';
import { PageField } from './page-field.tsx';

/** What a page says in a field, in the editor: it shows what it says now. */
export const detailExtension = DetailInText.extend({ addNodeView: () => ReactNodeViewRenderer(DetailView) });

const THIS = { value: 'this', words: 'This page' };
/** The same in the outline of a kind. */
const EACH = { ...THIS, words: 'Each page itself' };

/** The fields of a page whose values can stand in a text: those that visitors see, but for files. */
function offeredOf(site: Site, page: PageId | null): readonly KindField[] {
  const node = page === null ? undefined : maybeNodeAt(site, page);
  return node ? offeredFor(site, ruleOf(node).labels) : [];
}

const offeredFor = (site: Site, labels: readonly LabelId[]): readonly KindField[] =>
  fieldsFor(labels, site.settings.labels).filter(({ isForVisitors, type }) => isForVisitors && type !== 'file');

/** Puts a value of a field where the writing is; nothing where no kind of the site has fields. */
export function InsertValue({ editor }: { readonly editor: Editor }) {
  const { site, derived, selection } = useWorkbench();
  const kind = useTextOfKind();
  const [isOpen, setOpen] = useState(false);
  const [of, setOf] = useState<string>(THIS.value);
  const [chosen, setChosen] = useState<string>('');
  if (!site.settings.labels.some(({ fields = [] }) => fields.length > 0)) return null;
  const page = of === THIS.value ? selection.active : (of as PageId);
  const fields = of === THIS.value && kind !== null ? offeredFor(site, [kind]) : offeredOf(site, page);
  const field = fields.find(({ id }) => id === chosen) ?? fields[0];
  const insert = () => {
    if (!field) return;
    const attrs = { field: field.id, page: of === THIS.value ? null : of };
    editor.chain().focus().insertContent({ type: DETAIL, attrs }).run();
    setOpen(false);
  };
  return (
    <Popover
      label="Insert a field value"
      className="flex w-80 flex-col gap-3 p-3"
      isOpen={isOpen}
      onOpenChange={setOpen}
      focusAfter={() => editor.commands.focus()}
      trigger={
        <button
          type="button"
          aria-label="Insert a field value"
          title="Insert a field value"
          className="inline-flex size-8 items-center justify-center rounded-md hover:bg-sunken"
        >
          <TextCursorInput size={16} aria-hidden />
        </button>
      }
    >
      <PageField
        label="Page"
        value={of}
        others={[kind === null ? THIS : EACH]}
        isOffered={(row) => offeredOf(site, derived.outline.nodes[row]!.id).length > 0}
        onChoose={setOf}
      />
      {fields.length === 0 ? (
        <p className="text-quiet">This page has no fields that visitors see. Choose another page.</p>
      ) : (
        <>
          <Choice label="Field" value={field?.id ?? ''} onChange={(event) => setChosen(event.target.value)}>
            {fields.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </Choice>
          <Button look="main" className="self-start" onClick={insert}>
            Insert it
          </Button>
        </>
      )}
    </Popover>
  );
}

function DetailView({ node }: NodeViewProps) {
  const { site, selection } = useWorkbench();
  const context = useFieldContext();
  const { field, page } = node.attrs as { readonly field: FieldId; readonly page: PageId | null };
  const kind = useTextOfKind();
  const found = maybeUsedField(site.settings.labels, field);
  if (kind !== null && page === null && found)
    return (
      <NodeViewWrapper as="span" title="What each page says in this field" className="rounded-sm bg-accent-soft px-1">
        {found.field.name}
      </NodeViewWrapper>
    );
  const of = maybeNodeAt(site, page ?? selection.active ?? ('' as PageId));
  const value = found && of ? detailIn(of, found, context) : null;
  const title = of ? textIn(of.title, site.settings.language) : '';
  const said = found && value !== null ? FIELD_TYPE[found.field.type].words(value, found.field, context) : '';
  const words = !found || !of ? 'a value that is not there' : said === '' ? `${found.field.name}: nothing yet` : said;
  return (
    <NodeViewWrapper
      as="span"
      title={
        found && of
          ? `${found.field.name} of ‘${title}’`
          : 'The field or its page was removed. Visitors see nothing here.'
      }
      className={`rounded-sm px-1 ${said === '' ? 'bg-attention-soft text-attention' : 'bg-accent-soft'}`}
    >
      {words}
    </NodeViewWrapper>
  );
}
