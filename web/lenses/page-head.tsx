import { ExternalLink } from 'lucide-react';
import { openLiveAddress } from '../tree/live-address.ts';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { scheduledWords } from '../tree/scheduled-pages.ts';
import { hereWords } from '../tree/here-sign.tsx';
import { PracticeActions } from './practice-actions.tsx';
import { STATE_MEANING, STATE_WORDS, standingOf } from '../tree/words.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';

/** The title of the selected page, its state with what that means, and the way to it as visitors have it. */
export function PageHead({ page }: { readonly page: PageId }) {
  const { site, derived, liveOrigin, chosen, scheduled, here } = useWorkbench();
  const node = nodeAt(site, page);
  const row = derived.outline.rowOf.get(page)!;
  const state = derived.states[row]!;
  const standing = standingOf(site, page, state);
  const set = scheduledWords(scheduled, page, state, site.settings.timeZone);
  const address = openLiveAddress(site, page);
  return (
    <div>
      <h2 className="font-display text-title leading-tight font-semibold">
        {textIn(node.title, site.settings.language)}
      </h2>
      <p className="mt-1 text-small text-quiet">
        <span className="font-medium text-ink">{STATE_WORDS[standing]}.</span> {STATE_MEANING[standing]}
        {set !== null && <span className="font-medium text-accent"> {set}, by a release that waits.</span>}
      </p>
      {here.has(page) && (
        <p className="mt-1 text-small font-medium text-accent">{hereWords(here.get(page)!.split('\n'))}.</p>
      )}
      {page === site.practice && <PracticeActions page={page} />}
      {chosen.length > 1 && (
        <p className="mt-1 rounded-sm bg-attention-soft px-2 py-1 text-small text-attention">
          {chosen.length} are selected. The fields here are for this page only.
        </p>
      )}
      {address !== null && (
        <a
          href={`${liveOrigin}/${site.key}${encodeURI(address)}`}
          target="_blank"
          rel="noreferrer"
          className="mt-1 inline-flex items-center gap-1 text-small text-accent hover:underline"
        >
          See it live <ExternalLink size={12} aria-label="opens in a new tab" />
        </a>
      )}
    </div>
  );
}
