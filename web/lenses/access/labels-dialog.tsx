import { NO_RULE } from '#core/model/access.ts';
import {
  ABOUT,
  type About,
  MAX_LABEL_NAME_LENGTH,
  type LabelRule,
  type PageLabel,
  isKind,
} from '#core/model/page-label.ts';
import { newLabelId } from '../../api/site-store.ts';
import { pages } from '../../tree/words.ts';
import { AudienceTicks } from '../../ui/audience-ticks.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { Choice } from '../../ui/field.tsx';
import { NamedThing, NamedThings } from '../../fields/named-things.tsx';
import { ClosedLookChoice, HeldBackChoice, Moment } from './rule-fields.tsx';

const ABOUT_WORDS: Readonly<Record<About, string>> = {
  page: 'A kind of page, of its own',
  person: 'A kind: each page is about a person',
  place: 'A kind: each page is about a place',
  course: 'A kind: each page is about a course',
  event: 'A kind: each page is about an event',
  article: 'A kind: each page is an article',
  organisation: 'A kind: each page is about an organisation',
};

/** The labels of the site, kinds among them: a rule is said once, and holds for all pages that bear the label. */
export function LabelsDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store } = useWorkbench();
  const { labels } = site.settings;
  return (
    <NamedThings
      title="Labels and kinds"
      description="A label has one rule, which applies to every page that has the label and everything below it. A label can be a kind, which says what its pages are about; a page has one kind. Set labels in the side sheet of the Access lens, and the kind in the Write lens."
      one="label"
      placeholder="Handbook"
      longest={MAX_LABEL_NAME_LENGTH}
      isEmpty={labels.length === 0}
      onAdd={(title) => store.apply([{ name: 'label.add', label: newLabelId(), title }]) === null}
      onClose={onClose}
    >
      {labels.map((label) => (
        <OneLabel key={label.id} label={label} />
      ))}
    </NamedThings>
  );
}

function OneLabel({ label }: { readonly label: PageLabel }) {
  const { site, store } = useWorkbench();
  const { id, name, rule: kept, about } = label;
  const rule = { ...NO_RULE, ...kept };
  const set = (change: LabelRule) =>
    store.apply([{ name: 'label.set', label: id, fields: { rule: { ...kept, ...change } } }]);
  const bearers = site.nodes.count(({ access, removedWith }) => removedWith === null && !!access?.labels.includes(id));
  const { audiences } = site.settings;
  return (
    <NamedThing
      name={name}
      one="label"
      longest={MAX_LABEL_NAME_LENGTH}
      hint={bearers === 0 ? 'No page has it yet.' : `On ${pages(bearers)}.`}
      onRename={(title) => store.apply([{ name: 'label.set', label: id, fields: { title } }])}
      onRemove={() => store.apply([{ name: 'label.remove', label: id }])}
    >
      <Choice
        label="What it says of pages"
        hint={isKind(label) ? 'Search engines are told so too.' : undefined}
        value={about ?? ''}
        onChange={(event) =>
          store.apply([
            { name: 'label.set', label: id, fields: { about: (event.target.value || null) as About | null } },
          ])
        }
      >
        <option value="">A label, beside their kind</option>
        {ABOUT.map((one) => (
          <option key={one} value={one}>
            {ABOUT_WORDS[one]}
          </option>
        ))}
      </Choice>
      {audiences.length > 0 && (
        <AudienceTicks
          audiences={audiences}
          all="Same as the page above"
          only={rule.only}
          except={rule.except}
          onSet={set}
        />
      )}
      <div className="grid grid-cols-2 gap-3 max-md:grid-cols-1">
        <Moment label="Opens" value={rule.from} onSet={(from) => set({ from })} />
        <Moment label="Closes" value={rule.until} onSet={(until) => set({ until })} />
        <HeldBackChoice finder="search" value={rule.search} onSet={(search) => set({ search })} />
        <HeldBackChoice finder="engines" value={rule.engines} onSet={(engines) => set({ engines })} />
      </div>
      <ClosedLookChoice value={rule.closedLook} onSet={(closedLook) => set({ closedLook })} />
    </NamedThing>
  );
}
