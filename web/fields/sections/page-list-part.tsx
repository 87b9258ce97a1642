import { type NodeViewProps, NodeViewWrapper } from '@tiptap/react';
import { listedAs } from '#core/derive/listing.ts';
import { labelOf } from '#core/derive/menu.ts';
import type { PageId } from '#core/model/ids.ts';
import type { PageListSetting } from '#core/sections/page-list.ts';
import { Choice, TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { OF_THE_DESK } from '../page-look.ts';
import { PageField } from '../page-field.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const PAGE_LIST_PART = editorPart('pageList', WhichPages);

const THIS = { value: 'this', words: 'Below this page' };

function WhichPages({ attributes: { of, look, order, most }, set }: SettingsProps<PageListSetting>) {
  const { derived } = useWorkbench();
  return (
    <div className="grid w-full gap-2 @md:grid-cols-2">
      <PageField
        label="Pages"
        value={of ?? THIS.value}
        others={[THIS]}
        wordsOf={(title) => `Below ‘${title}’`}
        isOffered={(row) => derived.outline.end[row]! > row + 1}
        onChoose={(next) => set({ of: next === THIS.value ? null : (next as PageId) })}
      />
      <Choice
        label="Order"
        value={order}
        onChange={(event) => set({ order: event.target.value as PageListSetting['order'] })}
      >
        <option value="tree">Tree order</option>
        <option value="alphabet">Alphabetical</option>
        <option value="date">Newest first</option>
      </Choice>
      <Choice
        label="Look"
        value={look}
        onChange={(event) => set({ look: event.target.value as PageListSetting['look'] })}
      >
        <option value="list">A list with descriptions</option>
        <option value="cards">Cards</option>
        <option value="dates">Dates and titles</option>
      </Choice>
      <TextField
        label="At most"
        type="number"
        min={0}
        max={200}
        hint="0 for all."
        value={String(most)}
        onChange={(event) => set({ most: Math.max(0, Math.min(200, Math.round(Number(event.target.value)) || 0)) })}
      />
    </div>
  );
}

/** A list of pages in the editor: those that it has now. */
export function PageListView({ node, selected }: NodeViewProps) {
  const { site, derived, selection } = useWorkbench();
  const { of, order, most } = node.attrs as PageListSetting;
  const page = of ?? selection.active;
  const all =
    page === null || !derived.outline.rowOf.has(page)
      ? []
      : listedAs(site, page, derived, { look: 'list', levels: 1, order });
  const listed = most === 0 ? all : all.slice(0, most);
  return (
    <NodeViewWrapper
      aria-label="List of pages"
      className={`${OF_THE_DESK} rounded-md border border-dashed px-2 py-1.5 ${selected ? 'border-accent bg-accent-soft' : 'border-edge'}`}
    >
      <p className="text-small text-quiet">List of pages</p>
      {listed.length === 0 ? (
        <p className="text-quiet">No page stands there yet.</p>
      ) : (
        <ul>
          {listed.map(({ row }) => (
            <li key={row}>{labelOf(site, derived.outline.nodes[row]!)}</li>
          ))}
        </ul>
      )}
    </NodeViewWrapper>
  );
}
