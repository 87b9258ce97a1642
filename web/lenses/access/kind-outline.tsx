import { useState } from 'react';
import { followAgain, pagesOfKind } from '#core/arrange/page-outlines.ts';
import type { PageKind } from '#core/model/page-label.ts';
import type { PageId } from '#core/model/ids.ts';
import { MAX_OPERATIONS } from '#contract/api.ts';
import type { Edit } from '../../api/site-store.ts';
import { JointRichText } from '../../joint/joint-rich-text.tsx';
import { TextOfKind } from '../../fields/text-of-kind.ts';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** What the pages of a kind begin with: a text with places for what each says in its fields. */
export function KindOutline({ kind }: { readonly kind: PageKind }) {
  const { site, store, mayEdit } = useWorkbench();
  const [isWriting, setWriting] = useState(false);
  const { following, differing, without } = pagesOfKind(site, kind);
  const apply = (operations: Edit[]) => {
    for (let at = 0; at < operations.length; at += MAX_OPERATIONS)
      store.apply(operations.slice(at, at + MAX_OPERATIONS));
  };
  return (
    <section aria-labelledby="kind-outline" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 id="kind-outline" className="font-display text-large font-semibold">
        Outline
      </h3>
      <p className="text-small text-quiet">
        The text that every page of this kind begins with. Insert <i>Fields of the page</i> where its fields go, and
        field values within sentences. A page follows the outline until somebody writes on it; from then on it keeps its
        own text.
      </p>
      {kind.pageOutline === undefined && !isWriting ? (
        mayEdit && (
          <Button className="self-start" onClick={() => setWriting(true)}>
            Write an outline
          </Button>
        )
      ) : (
        <>
          <TextOfKind value={kind.id}>
            <JointRichText
              key={kind.id}
              site={site.key}
              store={store}
              place={{ of: 'outline', id: kind.id }}
              content={kind.pageOutline ?? null}
              name={`Outline of ${kind.name}`}
              mayEdit={mayEdit}
              audiences={site.settings.audiences}
              facts={site.settings.facts}
            />
          </TextOfKind>
          <p role="status" className="text-small text-quiet">
            {whoFollows(following.length, differing.length, kind.pageOutline === undefined ? without.length : 0)}
          </p>
          {kind.pageOutline !== undefined && without.length > 0 && mayEdit && (
            <Button className="self-start" onClick={() => apply(followAgain(kind, without) as Edit[])}>
              Give it to {withoutText(without)}
            </Button>
          )}
        </>
      )}
    </section>
  );
}

const withoutText = (some: readonly PageId[]): string =>
  some.length === 1 ? 'the page without a text' : `the ${some.length} pages without a text`;

function whoFollows(following: number, differing: number, waiting: number): string {
  const own = differing === 0 ? '' : ` ${pages(differing)} ${differing === 1 ? 'keeps its' : 'keep their'} own text.`;
  if (waiting > 0) return `${pages(waiting)} without a text will begin with it.${own}`;
  return `${following === 0 ? 'No page follows it' : following === 1 ? '1 page follows it' : `${following} pages follow it`}.${own}`;
}
