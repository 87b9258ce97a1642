import { Tag } from 'lucide-react';
import { giveLabel } from '#core/arrange/give.ts';
import { labelWords } from '#core/derive/reason-words.ts';
import { touchedByLabel } from '#core/derive/touched.ts';
import { type LabelId, NO_RULE } from '#core/model/access.ts';
import { ABOUT, type About, MAX_LABEL_NAME_LENGTH, type LabelRule, isKind } from '#core/model/page-label.ts';
import { type Edit, newLabelId } from '../../api/site-store.ts';
import { pages } from '../../tree/words.ts';
import { AudienceTicks } from '../../ui/audience-ticks.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { Choice } from '../../ui/field.tsx';
import type { ListKind } from '../../settings/settings-kind.ts';
import { KindFields } from './kind-fields.tsx';
import { KindOutline } from './kind-outline.tsx';
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
export const LABELS: ListKind = {
  edits: 'access',
  title: 'Labels and kinds',
  one: 'label',
  Sign: Tag,
  description:
    'A label has one rule, which applies to every page that has the label and everything below it. A label can be a kind, which says what its pages are about; a page has one kind.',
  placeholder: 'Handbook',
  longest: MAX_LABEL_NAME_LENGTH,
  items: (site) => site.settings.labels,
  says: (site, { outline }) => {
    const counts = new Map<string, number>();
    for (const { access } of outline.nodes)
      for (const one of access?.labels ?? []) counts.set(one, (counts.get(one) ?? 0) + 1);
    return (id) => {
      const { rule = {}, about } = site.settings.labels.find((one) => one.id === id) ?? {};
      const says = [
        `On ${pages(counts.get(id) ?? 0)}`,
        about && 'a kind',
        Object.keys(rule).length > 0 && labelWords(site, rule),
      ];
      return { says: says.filter(Boolean).join(' · ') };
    };
  },
  touched: (site, { outline }, id) => touchedByLabel(site, outline, id as LabelId),
  add: (title) => {
    const label = newLabelId();
    return { id: label, edit: { name: 'label.add', label, title } };
  },
  rename: (id, title) => ({ name: 'label.set', label: id as LabelId, fields: { title } }),
  remove: (id) => ({ name: 'label.remove', label: id as LabelId }),
  give: (site, to, id) => giveLabel(site, to, id as LabelId) as Edit[],
  Fields: LabelFields,
};

function LabelFields({ id: open }: { readonly id: string }) {
  const { site, store } = useWorkbench();
  const { audiences, labels } = site.settings;
  const label = labels.find((one) => one.id === open);
  if (!label) return null;
  const { id, rule: kept, about } = label;
  const rule = { ...NO_RULE, ...kept };
  const set = (change: LabelRule) =>
    store.apply([{ name: 'label.set', label: id, fields: { rule: { ...kept, ...change } } }]);
  return (
    <>
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
      {isKind(label) && <KindFields kind={label} />}
      {isKind(label) && <KindOutline kind={label} />}
      {isKind(label) && (
        <h3 className="border-t border-rule pt-4 font-display text-large font-semibold">Who can open its pages</h3>
      )}
      {audiences.length > 0 && (
        <AudienceTicks
          audiences={audiences}
          all="Same as the page above"
          only={rule.only}
          except={rule.except}
          onSet={set}
        />
      )}
      <div className="grid gap-3 @xl:grid-cols-2">
        <Moment label="Opens" value={rule.from} onSet={(from) => set({ from })} />
        <Moment label="Closes" value={rule.until} onSet={(until) => set({ until })} />
        <HeldBackChoice finder="search" value={rule.search} onSet={(search) => set({ search })} />
        <HeldBackChoice finder="engines" value={rule.engines} onSet={(engines) => set({ engines })} />
      </div>
      <ClosedLookChoice value={rule.closedLook} onSet={(closedLook) => set({ closedLook })} />
    </>
  );
}
