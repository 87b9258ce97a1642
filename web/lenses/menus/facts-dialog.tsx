import { MAX_FACT_LENGTH, MAX_FACT_NAME_LENGTH, type Fact, STRAPLINE } from '#core/model/fact.ts';
import { textIn } from '#core/model/texts.ts';
import { nodeAt } from '#core/model/site.ts';
import { useFactUses } from '../../api/find.ts';
import { newFactId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { NamedThing, NamedThings } from '../../fields/named-things.tsx';
import { pages } from '../../tree/words.ts';
import { Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** So many pages that name a fact are listed. */
const MAX_NAMED = 6;

/** The facts of the site: kept once, and said in headers, footers and texts. */
export function FactsDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store } = useWorkbench();
  const { facts } = site.settings;
  return (
    <NamedThings
      title="Facts"
      description="Details of the site that appear in many places are kept here once. Layouts show them and texts insert them; after the next release all of them show what is here."
      one="fact"
      placeholder="Opening hours"
      longest={MAX_FACT_NAME_LENGTH}
      isEmpty={facts.length === 0}
      onAdd={(title) => store.apply([{ name: 'fact.add', fact: newFactId(), title }]) === null}
      onClose={onClose}
    >
      {facts.map((fact) => (
        <OneFact key={fact.id} fact={fact} />
      ))}
    </NamedThings>
  );
}

function OneFact({ fact }: { readonly fact: Fact }) {
  const { store } = useWorkbench();
  return (
    <NamedThing
      name={fact.name}
      one="fact"
      longest={MAX_FACT_NAME_LENGTH}
      onRename={(title) => store.apply([{ name: 'fact.set', fact: fact.id, fields: { title } }])}
      onRemove={() => store.apply([{ name: 'fact.remove', fact: fact.id }])}
    >
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
    </NamedThing>
  );
}

/** Where a fact appears, as a sentence. */
function Uses({ fact }: { readonly fact: Fact }) {
  const { site, shown } = useWorkbench();
  const inTexts = useFactUses(site.key, fact.id, shown.revision)?.filter(
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
