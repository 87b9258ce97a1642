import { Fragment } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { ShowRows } from '../../settings/show-rows.tsx';
import { numberWords } from '../../ui/number-words.ts';
import { titleIn } from './publish-words.ts';

const MAX_LISTED = 12;

/** The titles of pages, one after the other; each leads to its row. */
export function PageTitles({ ids, site }: { readonly ids: readonly PageId[]; readonly site: Site }) {
  return (
    <>
      {ids.slice(0, MAX_LISTED).map((id, at) => (
        <Fragment key={id}>
          {at > 0 && ' · '}
          <ShowRows pages={[id]}>{titleIn(site, id)}</ShowRows>
        </Fragment>
      ))}
      {ids.length > MAX_LISTED && ` · and ${numberWords(ids.length - MAX_LISTED)} more`}
    </>
  );
}
