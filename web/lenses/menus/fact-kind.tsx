import { Info } from 'lucide-react';
import { type Fact, type FactId, MAX_FACT_LENGTH, MAX_FACT_NAME_LENGTH, STRAPLINE } from '#core/model/fact.ts';
import { touchedByTexts } from '#core/derive/touched.ts';
import { textIn } from '#core/model/texts.ts';
import { nodeAt } from '#core/model/site.ts';
import { useTextUses } from '../../api/find.ts';
import { newFactId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import type { ListKind } from '../../settings/settings-kind.ts';
import { pages } from '../../tree/words.ts';
import { Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** So many pages that name a fact are listed. */
const MAX_NAMED = 6;

/** The facts of the site: kept once, and said in headers, footers and texts. */
export const FACTS: ListKind = {
  edits: 'write',
  title: 'Facts',
  one: 'fact',
  Sign: Info,
  description:
    'Details of the site that appear in many places are kept here once. Layouts show them and texts insert them; after the next release all of them show what is here.',
  placeholder: 'Opening hours',
  longest: MAX_FACT_NAME_LENGTH,
  items: (site) => site.settings.facts,
  says: (site) => (id) => ({
    says: site.settings.facts.find((one) => one.id === id)?.text || 'It says nothing yet.',
  }),
  touched: (_site, { outline }, _id, { textUses }) => (textUses ? touchedByTexts(outline, textUses) : null),
  add: (title) => {
    const fact = newFactId();
    return { id: fact, edit: { name: 'fact.add', fact, title } };
  },
  rename: (id, title) => ({ name: 'fact.set', fact: id as FactId, fields: { title } }),
  remove: (id) => ({ name: 'fact.remove', fact: id as FactId }),
  Fields: FactFields,
};

function FactFields({ id }: { readonly id: string }) {
  const { site, store } = useWorkbench();
  const fact = site.settings.facts.find((one) => one.id === id);
  if (!fact) return null;
  return (
    <>
      <DraftField
        label="What it says"
        saved={fact.text}
        longest={MAX_FACT_LENGTH}
        hint={<Uses fact={fact} />}
        onSave={(text) => store.apply([{ name: 'fact.set', fact: fact.id, fields: { text } }])}
      />
      <Tick
        label="Shown in headers"
        checked={fact.inHeader === true}
        onChange={(event) =>
          store.apply([{ name: 'fact.set', fact: fact.id, fields: { inHeader: event.target.checked } }])
        }
      />
      <Tick
        label="Shown in footers"
        checked={fact.inFooter}
        onChange={(event) =>
          store.apply([{ name: 'fact.set', fact: fact.id, fields: { inFooter: event.target.checked } }])
        }
      />
    </>
  );
}

/** Where a fact appears, as a sentence. */
function Uses({ fact }: { readonly fact: Fact }) {
  const { site, shown } = useWorkbench();
  const inTexts = useTextUses(site.key, 'fact', fact.id, shown.revision)?.filter(
    (id) => site.nodes.get(id)?.removedWith === null,
  );
  const layouts = site.settings.layouts.filter(
    ({ header, hasFooter }) =>
      (fact.inFooter && hasFooter) ||
      (fact.inHeader && header !== 'none') ||
      (fact.id === STRAPLINE && header === 'tall'),
  );
  if (!inTexts) return 'Finding where it appears …';
  const names = inTexts.slice(0, MAX_NAMED).map((id) => `‘${textIn(nodeAt(site, id).title, site.settings.language)}’`);
  const parts = [
    layouts.length > 0 &&
      `in the layout${layouts.length === 1 ? '' : 's'} ${layouts.map(({ name }) => `‘${name}’`).join(', ')}`,
    inTexts.length > 0 &&
      `in the text of ${pages(inTexts.length)}: ${names.join(', ')}${inTexts.length > MAX_NAMED ? ` and ${inTexts.length - MAX_NAMED} more` : ''}`,
  ].filter(Boolean);
  return parts.length === 0 ? 'It appears nowhere yet.' : `It appears ${parts.join(', and ')}.`;
}
