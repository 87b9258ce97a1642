import type { ReactNodeViewProps } from '@tiptap/react';
import { type ComponentType, createContext, useContext } from 'react';
import type { ContentId, SiteKey } from '#core/model/ids.ts';
import type { SharedId } from '#core/model/shared-section.ts';
import { SHARED } from '#core/sections/shared.ts';
import { useContent } from '../../api/content.ts';
import { newSharedId } from '../../api/site-store.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { OF_THE_DESK } from '../page-look.ts';
import { type SettingsProps, editorPart } from './editor-part.ts';
import { ChooseOne, SettingPlace, WhichOne } from './setting-place.tsx';
import { toast } from '../../ui/toast.ts';

/** How the text of a shared section is shown within another; null within a shared section itself, where none stands. */
type ShowText = ComponentType<{ readonly site: SiteKey; readonly content: ContentId }>;
const Show = createContext<ShowText | null>(null);
export const ShowsShared = Show.Provider;

export const SHARED_PART = editorPart(SHARED.type, WhichShared);

function WhichShared({ editor, attributes: { of }, set }: SettingsProps<{ readonly of: SharedId | null }>) {
  const { site, setBeside } = useWorkbench();
  const section = site.settings.shared.find(({ id }) => id === of);
  const document = useContent(site.key, section?.content ?? null);
  if (!section) return null;
  return (
    <div className="flex w-full flex-wrap items-end gap-2">
      <WhichOne
        label="Which one"
        value={section.id}
        all={site.settings.shared}
        onChoose={(next) => set({ of: next })}
      />
      <Button onClick={() => setBeside({ kind: 'shared', id: section.id })}>Write in it…</Button>
      <Button
        disabled={!document}
        title="Copies its text here; from then on it belongs to this page alone"
        onClick={() =>
          editor
            .chain()
            .focus()
            .command(({ state, tr }) => {
              const { from, to, $from } = state.selection;
              const { content } = state.schema.nodeFromJSON(document);
              const at = $from.index();
              if (!$from.parent.canReplace(at, at + 1, content)) {
                toast.error('It has sections for some audiences, which cannot stand within such a section.');
                return false;
              }
              tr.replaceWith(from, to, content);
              return true;
            })
            .run()
        }
      >
        Copy it in here
      </Button>
    </div>
  );
}

/** A shared section where a page shows it: its text, to be read alone, below its name. */
export function SharedView({ node, selected, editor, getPos, updateAttributes }: ReactNodeViewProps) {
  const { site, store, setBeside } = useWorkbench();
  const Text = useContext(Show);
  const { of } = node.attrs as { readonly of: SharedId | null };
  const section = site.settings.shared.find(({ id }) => id === of);
  const words = section
    ? `Shared section: ${section.name}`
    : of === null
      ? 'Shared section'
      : 'This shared section was removed. Visitors see nothing here.';
  const make = () => {
    const shared = newSharedId();
    if (store.apply([{ name: 'shared.add', shared, title: 'Shared section' }]) !== null) return;
    updateAttributes({ of: shared });
    setBeside({ kind: 'shared', id: shared });
  };
  return (
    <SettingPlace
      words={words}
      says={Text ? words : 'A shared section shows nothing within another.'}
      isMissing={!section && of !== null}
      selected={selected}
      editor={editor}
      getPos={getPos}
    >
      {Text && of === null && editor.isEditable && (
        <ChooseOne
          label="Which one"
          all={site.settings.shared}
          newOne="Write a new one…"
          onChoose={(id) => updateAttributes({ of: id })}
          onMake={make}
        />
      )}
      {Text && section && section.content === null && (
        <p className={`${OF_THE_DESK} text-quiet`}>It says nothing yet.</p>
      )}
      {Text && section?.content && <Text site={site.key} content={section.content} />}
    </SettingPlace>
  );
}
