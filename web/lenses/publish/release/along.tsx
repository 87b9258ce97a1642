import type { AlongReason, PageAlong } from '#core/changes/release-plan.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { PageTitles } from '../page-titles.tsx';
import { titleIn } from '../publish-words.ts';
import { numberWords } from '../../../ui/number-words.ts';

const MAX_LISTED = 12;

/** Pages by their titles, under a heading; nothing where there are none. */
export function PageList({ heading, ids }: { readonly heading: string; readonly ids: readonly PageId[] }) {
  const { site } = useWorkbench();
  if (ids.length === 0) return null;
  return (
    <section>
      <h3 className="text-small font-medium">{heading}</h3>
      <p>
        <PageTitles ids={ids} site={site} />
      </p>
    </section>
  );
}

const BECAUSE: Readonly<Record<AlongReason, string>> = {
  above: 'stands above',
  address: 'still has the address that is needed by',
  below: 'stands below',
};

/** Why a page comes along, as it stands in its row. */
export const alongWords = (site: Site, { because, of }: PageAlong): string =>
  `comes along: ${BECAUSE[because]} ‘${titleIn(site, of)}’`;

/** The pages that come along, each with what needs it. */
export function Along({ along }: { readonly along: readonly PageAlong[] }) {
  const { site } = useWorkbench();
  return (
    <section aria-labelledby="along" className="rounded-md bg-attention-soft px-3 py-2">
      <h3 id="along" className="font-medium text-attention">
        {along.length === 1 ? '1 page comes along' : `${along.length} pages come along`}
      </h3>
      <ul className="mt-0.5">
        {along.slice(0, MAX_LISTED).map((one) => (
          <li key={one.page}>
            <span className="font-medium">
              <ShowRows pages={[one.page]}>{titleIn(site, one.page)}</ShowRows>
            </span>{' '}
            {BECAUSE[one.because]} ‘{titleIn(site, one.of)}’
          </li>
        ))}
        {along.length > MAX_LISTED && <li>and {numberWords(along.length - MAX_LISTED)} more</li>}
      </ul>
    </section>
  );
}
