import type { HomeOfRelease } from '#core/changes/home-of-release.ts';
import type { PageId } from '#core/model/ids.ts';
import { childrenOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** What a release leaves open about the home page, and the way to settle it. */
export function HomeChoice({
  home,
  onTake,
}: {
  readonly home: HomeOfRelease;
  readonly onTake: (page: PageId) => void;
}) {
  const { site, store } = useWorkbench();
  const titleOf = (page: PageId) => textIn(nodeAt(site, page).title, site.settings.language);
  if (home.kind === 'none')
    return <Notice>The site has no home page: visitors find nothing at its address. Add a page for it.</Notice>;
  if (home.kind === 'not-live')
    return (
      <Notice>
        <span className="flex flex-wrap items-center gap-2">
          <span className="flex-1">
            ‘{titleOf(home.page)}’ is the home page, and it is not in this release: visitors find nothing at the site’s
            address.
          </span>
          <Button onClick={() => onTake(home.page)}>Take it along</Button>
        </span>
      </Notice>
    );
  const top = childrenOf(site, null).filter((page) => nodeAt(site, page).type === 'page');
  // The first page may stand below a heading.
  const pages = top.includes(home.page) ? top : [home.page, ...top];
  return (
    <Choice
      label="Home page, at the address /"
      hint={
        home.isParent
          ? `Nobody has chosen it. The first page is ‘${titleOf(home.page)}’, which has pages below it.`
          : 'Nobody has chosen it, so it is the first page.'
      }
      value={home.isParent ? '' : home.page}
      onChange={(event) =>
        event.target.value !== '' && store.apply([{ name: 'site.set', fields: { home: event.target.value as PageId } }])
      }
    >
      {home.isParent && <option value="">Choose the home page</option>}
      {pages.map((page) => (
        <option key={page} value={page}>
          {titleOf(page)}
        </option>
      ))}
    </Choice>
  );
}
