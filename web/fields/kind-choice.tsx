import { isKind, kindAmong, withKind, type PageLabel } from '#core/model/page-label.ts';
import { type AccessChange, type LabelId, ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, nodeAt } from '#core/model/site.ts';
import { NO_KIND } from '../tree/words.ts';
import { Choice } from '../ui/field.tsx';

/** The kind of a page, one of those that the site has. */
export function KindChoice({
  site,
  page,
  onSet,
}: {
  readonly site: Site;
  readonly page: PageId;
  readonly onSet: (access: AccessChange) => void;
}) {
  const { labels } = site.settings;
  const borne = ruleOf(nodeAt(site, page)).labels;
  return (
    <Choice
      label="Kind"
      hint={
        labels.some(isKind)
          ? 'What the page is about. The rule of the kind holds for it.'
          : 'The site has no kinds yet. You make them under Labels in the Access lens.'
      }
      value={kindAmong(borne, labels)?.id ?? ''}
      onChange={(event) => onSet(kindChange(borne, event.target.value, labels))}
    >
      <option value="">{NO_KIND}</option>
      <KindOptions labels={labels} />
    </Choice>
  );
}

/** The kinds of a site as options of a choice. */
export function KindOptions({ labels }: { readonly labels: readonly PageLabel[] }) {
  return labels.filter(isKind).map(({ id, name }) => (
    <option key={id} value={id}>
      {name}
    </option>
  ));
}

/** The change that gives a page of these labels the kind that was chosen; '' takes its kind away. */
export const kindChange = (borne: readonly LabelId[], chosen: string, labels: readonly PageLabel[]): AccessChange => ({
  labels: withKind(borne, chosen === '' ? null : (chosen as LabelId), labels),
});
