import { useState } from 'react';
import { type Nearness, nearestPages } from '#core/derive/nearest-pages.ts';
import type { PageId } from '#core/model/ids.ts';
import { redirectAddressSchema } from '#core/model/redirect.ts';
import { textIn } from '#core/model/texts.ts';
import type { MissedAddress } from '#contract/releases.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { letMissedBe } from '../../../api/releases.ts';
import { newRedirectId } from '../../../api/site-store.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { PageField } from '../../../fields/page-field.tsx';
import { Button } from '../../../ui/button.tsx';
import { Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toSettle } from './to-settle.ts';
import { toast } from '../../../ui/toast.ts';

const BECAUSE: Readonly<Record<Nearness, string>> = {
  'same name': 'has the same name',
  'like name': 'has nearly the same name',
  above: 'is the nearest page above',
};

/** The addresses that visitors asked for in vain, each with the page that it may mean. One click settles it. */
export function MissedList({ missed }: { readonly missed: readonly MissedAddress[] | undefined }) {
  const { site } = useWorkbench();
  const [withLetBe, setWithLetBe] = useState(false);
  if (!missed) return <p className="text-quiet">Loading …</p>;
  const shown = [...toSettle(missed, site), ...(withLetBe ? missed.filter(({ isLetBe }) => isLetBe) : [])];
  return (
    <div className="flex flex-col gap-3 pb-2">
      <p className="text-quiet">
        Visitors asked for these and got the not-found page. Spur keeps where they came from only if it was a page of
        this site.
      </p>
      {shown.length === 0 ? (
        <p>No visitor has met a missing page.</p>
      ) : (
        <ul aria-label="Addresses not found" className="divide-y divide-rule">
          {shown.map((one) => (
            <OneMissed key={one.path} missed={one} />
          ))}
        </ul>
      )}
      {missed.some(({ isLetBe }) => isLetBe) && (
        <Tick label="Include ignored ones" checked={withLetBe} onChange={() => setWithLetBe(!withLetBe)} />
      )}
    </div>
  );
}

function OneMissed({ missed: { path, hits, lastAt, from, isLetBe } }: { readonly missed: MissedAddress }) {
  const { site, derived, store, mayEdit } = useWorkbench();
  const { outline, addresses, hiddenBy } = derived;
  const [near] = nearestPages(addresses, path, (row) => hiddenBy[row] === -1, 1);
  const isAddress = redirectAddressSchema.safeParse(path).success;
  const titleOf = (row: number) => textIn(outline.nodes[row]!.title, site.settings.language);
  const settle = (page: PageId) => {
    const refused = store.apply([{ name: 'redirect.add', redirect: newRedirectId(), from: path, to: { page } }]);
    if (refused === null)
      toast.success(`${path} leads to ‘${titleOf(outline.rowOf.get(page)!)}’ with the next release.`);
  };
  const letBe = () => void letMissedBe(site.key, path, !isLetBe).catch((fault) => toast.error(wordsOfFault(fault)));
  const letBeWords = isLetBe ? 'Stop ignoring it' : 'Ignore';
  return (
    <li className="flex flex-wrap items-start gap-x-3 gap-y-1.5 py-2">
      <div className="min-w-56 flex-1">
        <p className="font-mono text-small break-all">{path}</p>
        <p className="text-small text-quiet">
          {hits === 1 ? 'Once' : `${hits} times`}, last on {momentWords(lastAt, site.settings.timeZone)}
          {from !== null && `, from ${from}`}
        </p>
        {near && (
          <p className="text-small">
            ‘{titleOf(near.row)}’ <span className="font-mono">{addresses[near.row]}</span> {BECAUSE[near.because]}.
          </p>
        )}
      </div>
      {mayEdit && (
        <div className="flex flex-wrap items-center gap-1.5">
          {near && isAddress && (
            <Button
              isTight
              aria-label={`Redirect it there: ${path} to ‘${titleOf(near.row)}’`}
              onClick={() => settle(outline.nodes[near.row]!.id)}
            >
              Redirect it there
            </Button>
          )}
          {isAddress && (
            <div className="w-44">
              <PageField
                isBare
                label={`Redirect ${path} to another page`}
                placeholder={near ? 'Elsewhere …' : 'Redirect it to …'}
                value=""
                isOffered={(row) => addresses[row] !== null && row !== near?.row}
                onChoose={(page) => settle(page as PageId)}
              />
            </div>
          )}
          <Button look="quiet" isTight aria-label={`${letBeWords}: ${path}`} onClick={letBe}>
            {letBeWords}
          </Button>
        </div>
      )}
    </li>
  );
}
