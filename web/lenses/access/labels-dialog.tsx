import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { NO_RULE } from '#core/model/access.ts';
import { LONGEST_LABEL_NAME, type LabelRule, type PageLabel } from '#core/model/page-label.ts';
import { newLabelId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { pages } from '../../tree/words.ts';
import { AudienceTicks } from '../../ui/audience-ticks.tsx';
import { Button, IconButton } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { ClosedLookChoice, HeldBackChoice, Moment } from './rule-fields.tsx';

/** The labels of the site: a rule is said once, and holds for all pages that bear the label. */
export function LabelsDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store, mayEdit } = useWorkbench();
  const { labels } = site.settings;
  const [typed, setTyped] = useState('');
  const add = () => {
    if (typed.trim() === '') return;
    if (store.apply([{ name: 'label.add', label: newLabelId(), title: typed }]) === null) setTyped('');
  };
  return (
    <Dialog
      title="Labels"
      description="A label has one rule, and every page that bears it takes it, with what is below. Pages get their labels in the side sheet."
      isOpen
      isWide
      onClose={onClose}
      actions={<Button onClick={onClose}>Close</Button>}
    >
      <fieldset disabled={!mayEdit} className="flex flex-col gap-3 pb-2">
        {labels.map((label) => (
          <OneLabel key={label.id} label={label} />
        ))}
        {mayEdit && (
          <form
            className="flex items-end gap-2 border-t border-rule pt-4 first:border-0 first:pt-0"
            onSubmit={(event) => {
              event.preventDefault();
              add();
            }}
          >
            <div className="flex-1">
              <TextField
                label={labels.length === 0 ? 'The first label' : 'Another label'}
                placeholder="Handbook"
                value={typed}
                maxLength={LONGEST_LABEL_NAME}
                onChange={(event) => setTyped(event.target.value)}
              />
            </div>
            <Button type="submit" look="main" disabled={typed.trim() === ''}>
              Add the label
            </Button>
          </form>
        )}
      </fieldset>
    </Dialog>
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
    <section aria-label={name} className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3">
      <div className="flex items-start gap-3">
        <div className="flex-1">
          <DraftField
            label="Name"
            saved={name}
            longest={LONGEST_LABEL_NAME}
            hint={bearers === 0 ? 'No page bears it yet.' : `On ${pages(bearers)}.`}
            onSave={(title) =>
              title.trim() !== '' && store.apply([{ name: 'label.set', label: id, fields: { title } }])
            }
          />
        </div>
        <IconButton
          name={`Take away the label ‘${name}’`}
          className="mt-6"
          onClick={() => store.apply([{ name: 'label.remove', label: id }])}
        >
          <Trash2 size={16} aria-hidden />
        </IconButton>
      </div>
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
        <HeldBackChoice
          label="Site search"
          offer="Find it, for those who can open it"
          value={rule.search}
          onSet={(search) => set({ search })}
        />
        <HeldBackChoice
          label="Search engines"
          offer="Offer it, if everyone can open it"
          value={rule.engines}
          onSet={(engines) => set({ engines })}
        />
      </div>
      <ClosedLookChoice
        value={rule.closedLook}
        unsaid="As the page above has it"
        onSet={(closedLook) => set({ closedLook })}
      />
    </section>
  );
}
