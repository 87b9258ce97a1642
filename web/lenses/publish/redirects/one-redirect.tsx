import { Trash2 } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Destination, RedirectId } from '#core/model/redirect.ts';
import type { LiveRedirect } from '#contract/releases.ts';
import { useRedirects } from '../../../api/releases.ts';
import { DraftField } from '../../../fields/draft-field.tsx';
import { PageField } from '../../../fields/page-field.tsx';
import { MarkedRows } from '../../../settings/marked-rows.tsx';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { ELSEWHERE } from './new-redirect.tsx';
import { destinationWords, idOfRedirect, reasonSentence } from './redirect-words.ts';

/** One address that leads elsewhere: its page is selected in the tree; what was made by hand can be changed. */
export function OneRedirect({ id, onGone }: { readonly id: string; readonly onGone: () => void }) {
  const { site, shown } = useWorkbench();
  const known = useRedirects(site.key, shown.revision)?.find((one) => idOfRedirect(one) === id);
  const drafted = site.settings.redirects.find((one) => one.id === id);
  const to = drafted?.to ?? known?.to;
  if (to === undefined) return null;
  return (
    <Fields
      from={drafted?.from ?? known!.path}
      to={to}
      known={known}
      isDrafted={Boolean(drafted)}
      {...{ id, onGone }}
    />
  );
}

function Fields({
  id,
  from,
  to,
  known,
  isDrafted,
  onGone,
}: {
  readonly id: string;
  readonly from: string;
  readonly to: Destination;
  readonly known: LiveRedirect | undefined;
  /** Whether the draft has it: it was made by hand, and was not removed. */
  readonly isDrafted: boolean;
  readonly onGone: () => void;
}) {
  const { site, store, mayEdit, latest } = useWorkbench();
  const page = typeof to === 'object' && 'page' in to ? to.page : null;
  const there = page !== null && site.nodes.has(page) ? page : null;
  useEffect(() => {
    if (there !== null) latest().select({ active: there, chosen: new Set([there]), anchor: there });
  }, [there, latest]);
  useMarkRows(
    useMemo(
      () => (there === null ? null : { name: 'Redirect', words: new Map([[there, `${from} leads here`]]) }),
      [there, from],
    ),
  );
  return (
    <div className="flex flex-col gap-4">
      {there !== null && <MarkedRows count={1}>Its page is marked in the tree.</MarkedRows>}
      <p>
        <span className="font-mono text-small break-all">
          {from} → {destinationWords(site, to)}
        </span>
        {known && <span className="block text-small text-quiet">{reasonSentence(site, known)}</span>}
        {!known && <span className="block text-small text-attention">Visitors have it with the next release.</span>}
        {known && known.redirect !== null && !isDrafted && (
          <span className="block text-small text-attention">It is removed with the next release.</span>
        )}
      </p>
      {isDrafted ? (
        <fieldset disabled={!mayEdit} className="flex min-w-0 flex-col gap-3">
          <ChangeDestination
            to={to}
            onSet={(next) => store.apply([{ name: 'redirect.set', redirect: id as RedirectId, to: next }])}
          />
          <div className="border-t border-rule pt-3">
            <Button
              look="quiet"
              className="-ml-2"
              onClick={() => {
                if (store.apply([{ name: 'redirect.remove', redirect: id as RedirectId }]) === null) onGone();
              }}
            >
              <Trash2 size={15} aria-hidden /> Remove the redirect from {from}
            </Button>
          </div>
        </fieldset>
      ) : (
        known?.redirect === null && (
          <p className="text-small text-quiet">
            Spur keeps this one. To send its visitors elsewhere, make a redirect by hand from the same address.
          </p>
        )
      )}
    </div>
  );
}

/** Where it leads from now on; visitors have that with the next release. */
function ChangeDestination({ to, onSet }: { readonly to: Destination; readonly onSet: (to: Destination) => void }) {
  const { derived } = useWorkbench();
  const url = typeof to === 'object' && 'url' in to ? to.url : null;
  const [isOutside, setOutside] = useState(url !== null);
  return (
    <>
      <PageField
        label="Leads to"
        value={isOutside ? 'outside' : to === 'gone' ? 'gone' : 'page' in to ? to.page : ''}
        others={ELSEWHERE}
        isOffered={(row) => derived.addresses[row] !== null}
        onChoose={(next) => {
          setOutside(next === 'outside');
          if (next !== 'outside') onSet(next === 'gone' ? 'gone' : { page: next as PageId });
        }}
      />
      {isOutside && (
        <DraftField
          label="Outside address"
          placeholder="https://"
          longest={2000}
          saved={url ?? ''}
          onSave={(next) => next.trim() !== '' && onSet({ url: next.trim() })}
        />
      )}
    </>
  );
}
