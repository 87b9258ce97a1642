import { useState } from 'react';
import type { ReleaseSummary } from '#contract/releases.ts';
import { useTreeAt } from '../../../api/sites.ts';
import { Choice } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { LiveDifference } from './live-difference.tsx';

/** What visitors have after one release that they had not after another: pages, addresses, menus, who can open what. */
export function CompareReleases({ releases }: { readonly releases: readonly ReleaseSummary[] }) {
  const { site } = useWorkbench();
  const [earlier, setEarlier] = useState(releases[1]!.number);
  const [later, setLater] = useState(releases[0]!.number);
  const revisionOf = (number: number) => releases.find((one) => one.number === number)?.revision ?? null;
  const before = useTreeAt(site.key, revisionOf(earlier));
  const after = useTreeAt(site.key, revisionOf(later));
  const isHere = before?.revision === revisionOf(earlier) && after?.revision === revisionOf(later);
  const options = releases.map(({ number, name }) => (
    <option key={number} value={number}>
      Release {number}
      {name !== '' && `: ${name}`}
    </option>
  ));
  return (
    <section aria-labelledby="compare">
      <h3 id="compare" className="font-display text-large font-semibold">
        Compare two
      </h3>
      <div className="my-2 grid gap-3 @sm:grid-cols-2">
        <Choice label="From" value={earlier} onChange={(event) => setEarlier(Number(event.target.value))}>
          {options}
        </Choice>
        <Choice label="To" value={later} onChange={(event) => setLater(Number(event.target.value))}>
          {options}
        </Choice>
      </div>
      {isHere ? (
        <LiveDifference before={before.site} after={after.site} name="Between the two" />
      ) : (
        <p className="text-quiet">Loading …</p>
      )}
    </section>
  );
}
