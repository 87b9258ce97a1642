import { kindChanges } from '#core/model/kind-outline.ts';
import { type PageLabel, isKind, kindAmong } from '#core/model/page-label.ts';
import { type LabelId, ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import type { PageChanges } from '#core/model/page-fields.ts';
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
  readonly onSet: (changes: PageChanges) => void;
}) {
  const { labels } = site.settings;
  const node = nodeAt(site, page);
  return (
    <Choice
      label="Kind"
      hint={
        labels.some(isKind)
          ? 'What the page is about. The rule of the kind holds for it.'
          : 'The site has no kinds yet. You make them under Labels in the Access lens.'
      }
      value={kindAmong(ruleOf(node).labels, labels)?.id ?? ''}
      onChange={(event) => onSet(kindChanges(node, kindChosen(event.target.value), labels))}
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

/** The kind that was chosen from these options; null for none. */
export const kindChosen = (value: string): LabelId | null => (value === '' ? null : (value as LabelId));
