import { Repeat2 } from 'lucide-react';
import { touchedByTexts } from '#core/derive/touched.ts';
import { MAX_SHARED_NAME_LENGTH, type SharedId, type SharedSection } from '#core/model/shared-section.ts';
import { newSharedId } from '../../api/site-store.ts';
import { JointRichText } from '../../joint/joint-rich-text.tsx';
import type { ListKind } from '../../settings/settings-kind.ts';
import { pages } from '../../tree/words.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** Texts that are kept once and shown on many pages. */
export const SHARED_SECTIONS: ListKind = {
  edits: 'write',
  title: 'Shared sections',
  one: 'shared section',
  Sign: Repeat2,
  description:
    'A text that many pages show is written here once. Insert it into the text of a page, or turn a section of a page into one.',
  placeholder: 'How to get here',
  longest: MAX_SHARED_NAME_LENGTH,
  items: (site) => site.settings.shared,
  says: (site) => (id) => {
    const section = site.settings.shared.find((one) => one.id === id);
    const live = site.liveSettings?.shared.find((one) => one.id === id);
    if (section?.content === null) return { says: '', waits: 'It says nothing yet' };
    if (!live) return { says: '', waits: 'Not live yet' };
    return live.content === section?.content ? { says: 'Live' } : { says: '', waits: 'Changed since it went live' };
  },
  touched: (_site, { outline }, _id, { textUses }) => (textUses ? touchedByTexts(outline, textUses) : null),
  add: (title) => {
    const shared = newSharedId();
    return { id: shared, edit: { name: 'shared.add', shared, title } };
  },
  rename: (id, title) => ({ name: 'shared.set', shared: id as SharedId, fields: { title } }),
  remove: (id) => ({ name: 'shared.remove', shared: id as SharedId }),
  Fields: SharedFields,
};

function SharedFields({ id }: { readonly id: string }) {
  const { site, store, mayEdit } = useWorkbench();
  const section = site.settings.shared.find((one) => one.id === id);
  if (!section) return null;
  return (
    <>
      <WhatChanges section={section} />
      <JointRichText
        key={section.id}
        site={site.key}
        store={store}
        place={{ of: 'shared', id: section.id }}
        content={section.content}
        name="What it says"
        mayEdit={mayEdit}
        isShared
        audiences={site.settings.audiences}
        facts={site.settings.facts}
      />
    </>
  );
}

/** What writing in a shared section changes, said before. */
function WhatChanges({ section }: { readonly section: SharedSection }) {
  const { openSetting } = useWorkbench();
  const touched = openSetting?.item.id === section.id ? openSetting.touched : null;
  if (touched === null) return null;
  return (
    <p className="text-small text-quiet">
      {touched.size === 0
        ? 'No page shows it yet. In the text of a page, Insert (Ctrl+Enter) lists it by its name.'
        : `What is written here changes ${pages(touched.size)}, for visitors with the next release.`}
    </p>
  );
}
