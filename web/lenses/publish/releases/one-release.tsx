import { Footprints, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { momentWords } from '#core/model/moment-words.ts';
import type { ReleaseSummary } from '#contract/releases.ts';
import { useReleases } from '../../../api/releases.ts';
import { useTreeAt } from '../../../api/sites.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { LiveDifference } from './live-difference.tsx';
import { releaseWords } from './release-words.ts';
import { TakeBackPart } from './take-back-part.tsx';

/** One release that was: what it changed, marked in the tree, and taking it back. */
export function OneRelease({ id }: { readonly id: string }) {
  const { site, shown, mayPublish } = useWorkbench();
  const release = useReleases(site.key, shown.revision)?.find(({ number }) => String(number) === id);
  const [isTaking, setTaking] = useState(false);
  if (!release) return null;
  const { number, name, at, by, note, override } = release;
  return (
    <div className="flex flex-col gap-4">
      <div>
        {name !== '' && <p>{releaseWords(release)}</p>}
        <p className="text-small text-quiet">
          {momentWords(at, site.settings.timeZone)} · {by}
        </p>
        {note !== '' && <p className="mt-1 whitespace-pre-line">{note}</p>}
        {override !== '' && (
          <p className="mt-1 whitespace-pre-line text-attention">Made live without approval: {override}</p>
        )}
      </div>
      {!isTaking && (
        <div className="flex flex-wrap gap-2">
          {mayPublish && (
            <Button onClick={() => setTaking(true)}>
              <Undo2 size={16} aria-hidden /> Take back release {number}…
            </Button>
          )}
          <Button look="quiet" onClick={() => window.open(`/sites/${site.key}/walk?release=${number}`, '_blank')}>
            <Footprints size={16} aria-hidden /> Walk through what it left
          </Button>
        </div>
      )}
      {isTaking ? (
        <TakeBackPart release={number} onDone={() => setTaking(false)} />
      ) : (
        <WhatItChanged release={release} />
      )}
    </div>
  );
}

/** A release is one edit: what visitors had before it is what the tree of the edit before says. */
function WhatItChanged({ release: { revision } }: { readonly release: ReleaseSummary }) {
  const { site } = useWorkbench();
  const before = useTreeAt(site.key, revision - 1);
  const after = useTreeAt(site.key, revision);
  if (before?.revision !== revision - 1 || after?.revision !== revision) return <p className="text-quiet">Loading …</p>;
  return <LiveDifference before={before.site} after={after.site} name="This release" />;
}
