import { NO_RULE } from '#core/model/access.ts';
import { LONGEST_LABEL_NAME, type LabelRule, type PageLabel } from '#core/model/page-label.ts';
import { newLabelId } from '../../api/site-store.ts';
import { pages } from '../../tree/words.ts';
import { AudienceTicks } from '../../ui/audience-ticks.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { NamedThing, NamedThings } from '../../fields/named-things.tsx';
import { ClosedLookChoice, HeldBackChoice, Moment } from './rule-fields.tsx';

/** The labels of the site: a rule is said once, and holds for all pages that bear the label. */
export function LabelsDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store } = useWorkbench();
  const { labels } = site.settings;
  return (
    <NamedThings
      title="Labels"
      description="A label has one rule, and every page that bears it takes it, with what is below. Pages get their labels in the side sheet."
      one="label"
      placeholder="Handbook"
      longest={LONGEST_LABEL_NAME}
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

function OneLabel({ label: { id, name, rule: kept } }: { readonly label: PageLabel }) {
  const { site, store } = useWorkbench();
  const rule = { ...NO_RULE, ...kept };
  const set = (change: LabelRule) =>
    store.apply([{ name: 'label.set', label: id, fields: { rule: { ...kept, ...change } } }]);
  const bearers = site.nodes.count(({ access, removedWith }) => removedWith === null && !!access?.labels.includes(id));
  const { audiences } = site.settings;
  return (
    <NamedThing
      name={name}
      one="label"
      longest={LONGEST_LABEL_NAME}
      hint={bearers === 0 ? 'No page bears it yet.' : `On ${pages(bearers)}.`}
      onRename={(title) => store.apply([{ name: 'label.set', label: id, fields: { title } }])}
      onRemove={() => store.apply([{ name: 'label.remove', label: id }])}
    >
      {audiences.length > 0 && (
        <AudienceTicks
          audiences={audiences}
          all="Whom the page above is open to"
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
