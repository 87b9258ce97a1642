import { differencesOf } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { liveAddress } from '../../tree/live-address.ts';
import { DIFFERENCE_WORDS, pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { PageApproval } from './approval/page-approval.tsx';
import { differs, removedButLive } from './publish-waiting.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageHead } from '../page-head.tsx';

/** The Publish lens: what differs between the draft and what visitors have. */
export function PublishPanel({ page }: { readonly page: PageId | null }) {
  const { site, chosen, setBeside, mayPublish } = useWorkbench();
  const removed = removedButLive(site);
  return (
    <div className="flex flex-col gap-4">
      {chosen.length > 1 ? (
        <h2 className="font-display text-title leading-tight font-semibold">{pages(chosen.length)} selected</h2>
      ) : (
        page !== null && <OnePage page={page} />
      )}
      {mayPublish && chosen.length > 0 && (
        <div className="flex flex-wrap gap-2">
          {chosen.some((id) => differs(site, id) || site.live.get(id)?.retired) && (
            <Button look="main" onClick={() => setBeside({ kind: 'going-live', id: null })}>
              {chosen.length === 1 ? 'Make this page live…' : 'Make these live…'}
            </Button>
          )}
          {chosen.some((id) => site.live.get(id)?.retired === false) && (
            <Button onClick={() => setBeside({ kind: 'taking-down', id: null })}>Take down…</Button>
          )}
          {chosen.length === 1 && page !== null && differencesOf(site, page).includes('text') && (
            <Button onClick={() => setBeside({ kind: 'texts', id: null })}>Compare the texts…</Button>
          )}
        </div>
      )}
      {page !== null && chosen.length <= 1 && <PageApproval page={page} />}
      {removed.length > 0 && (
        <section aria-labelledby="removed-but-live" className="border-t border-rule pt-4">
          <h3 id="removed-but-live" className="font-display text-large font-semibold">
            Removed, still live
          </h3>
          <p className="mb-1 text-small text-quiet">Visitors still have these until you release the removal.</p>
          <ul>
            {removed.map((id) => (
              <li
                key={id}
                className="flex flex-wrap items-baseline justify-between gap-x-3 border-b border-rule py-1.5 last:border-0"
              >
                <span>{textIn(site.live.get(id)!.node.title, site.settings.language)}</span>
                <span className="font-mono text-small text-quiet">{liveAddress(site, id)}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function OnePage({ page }: { readonly page: PageId }) {
  const { site, derived, changes } = useWorkbench();
  const last = changes?.get(page);
  const differences = differencesOf(site, page);
  const row = derived.outline.rowOf.get(page)!;
  const now = liveAddress(site, page);
  const after = derived.addresses[row]!;
  return (
    <div>
      <PageHead page={page} />
      <h3 className="mt-4 font-display text-large font-semibold">What differs</h3>
      {differences.length === 0 ? (
        <p className="text-quiet">Nothing: the draft is the same as the live page.</p>
      ) : (
        <ul className="mt-1 flex flex-wrap gap-1.5">
          {differences.map((difference) => (
            <li key={difference} className="rounded-full border border-edge px-2.5 py-0.5 text-small">
              {DIFFERENCE_WORDS[difference]}
            </li>
          ))}
        </ul>
      )}
      {differences.length > 0 && last && (
        <p className="mt-1.5 text-small text-quiet">
          Last changed by {last.by}, {momentWords(last.at, site.settings.timeZone)}.
        </p>
      )}
      {(now !== null || after !== null) && (
        <dl className="mt-4 grid grid-cols-[auto_minmax(0,1fr)] gap-x-3 gap-y-1 text-small">
          <dt className="text-quiet">Address now</dt>
          <dd className="font-mono break-all">{now ?? 'none'}</dd>
          <dt className="text-quiet">After</dt>
          <dd className="font-mono break-all">{after === now ? 'the same' : (after ?? 'none')}</dd>
        </dl>
      )}
    </div>
  );
}
