import { useState } from 'react';
import { toast } from 'sonner';
import type { TakeBackAnswer } from '#contract/releases.ts';
import type { Site } from '#core/model/site.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { useTakeBack } from '../../../api/releases.ts';
import { listOf, pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { SETTINGS_WORDS, titleIn } from '../publish-words.ts';
import { warnOfUnconfirmed } from '../unconfirmed.ts';

const MAX_LISTED = 8;

/** What taking a release back does, and what stands in the way, before it is done. */
export function TakeBackPart({ release, onDone }: { readonly release: number; readonly onDone: () => void }) {
  const { site, shown, store } = useWorkbench();
  const plan = useTakeBack(site.key, release, shown.revision);
  const [fault, setFault] = useState<string | null>(null);
  const [isRunning, setRunning] = useState(false);
  if (!plan) return <p className="py-2 pl-11 text-small text-quiet">Checking what stands in the way …</p>;
  const isNothing = plan.pages.length === 0 && plan.settings.length === 0;
  const inTheWay = plan.left.length + plan.leftSettings.length;
  const run = async () => {
    setRunning(true);
    try {
      const done = await store.takeBack(release, inTheWay > 0);
      warnOfUnconfirmed(done.unconfirmed);
      toast.success(`Release ${release} is taken back, by release ${done.number}.`);
      onDone();
    } catch (reason) {
      setFault(wordsOfFault(reason));
      setRunning(false);
    }
  };
  return (
    <section
      aria-label={`Take back release ${release}`}
      className="mt-2 ml-11 flex flex-col gap-2 border-l-2 border-accent pl-3"
    >
      {fault && <Notice>{fault}</Notice>}
      {isNothing ? (
        <p>None of it can be taken back.</p>
      ) : (
        <p>
          {plan.pages.length > 0 &&
            `${pages(plan.pages.length)} ${plan.pages.length === 1 ? 'becomes' : 'become'} what visitors had before`}
          {plan.pages.length > 0 && plan.settings.length > 0 && ', and so do the '}
          {plan.pages.length === 0 && plan.settings.length > 0 && 'As they were before become the '}
          {listOf(plan.settings.map((part) => SETTINGS_WORDS[part]))}.
        </p>
      )}
      {plan.addresses.length > 0 && (
        <ul className="font-mono text-small" aria-label="Addresses that change">
          {plan.addresses.slice(0, MAX_LISTED).map((one) => (
            <li key={one.page} className="break-all">
              <span className="text-quiet line-through">{one.before ?? 'none'}</span> →{' '}
              {one.after ?? <span className="font-sans">taken down</span>}
            </li>
          ))}
          {plan.addresses.length > MAX_LISTED && (
            <li className="font-sans text-quiet">and {plan.addresses.length - MAX_LISTED} more</li>
          )}
        </ul>
      )}
      {inTheWay > 0 && (
        <div className="rounded-md bg-attention-soft px-3 py-2">
          <p className="font-medium text-attention">Left as they are</p>
          <ul className="text-small">
            {plan.left.slice(0, MAX_LISTED).map((one) => (
              <li key={one.page}>{leftWords(site, one)}</li>
            ))}
            {plan.left.length > MAX_LISTED && <li>and {plan.left.length - MAX_LISTED} more</li>}
            {plan.leftSettings.map((one) => (
              <li key={one.part}>{leftSettingWords(one)}</li>
            ))}
          </ul>
        </div>
      )}
      <div className="flex gap-2">
        <Button look="main" disabled={isNothing || isRunning} onClick={() => void run()}>
          {isRunning ? 'Working …' : inTheWay > 0 ? 'Take back the rest' : `Take back release ${release}`}
        </Button>
        <Button look="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </section>
  );
}

function leftSettingWords({ part, release }: TakeBackAnswer['leftSettings'][number]): string {
  if (release === null) return 'The home page: the former one is not live, or another page has its address.';
  const what = part === 'home' ? 'Which page is home' : `The ${SETTINGS_WORDS[part]}`;
  return `${what}: changed again with release ${release}. Take that one back first.`;
}

function leftWords(site: Site, left: TakeBackAnswer['left'][number]): string {
  const title = `‘${titleIn(site, left.page)}’`;
  switch (left.because) {
    case 'changed since':
      return `${title} went live again with release ${left.release}. Take that one back first.`;
    case 'parent':
      return `${title}: ‘${titleIn(site, left.of)}’ stands above or below it and would not be live with it.`;
    case 'home':
      return `${title} is the home page, and other pages stay live.`;
    case 'setting':
      return `${title} names something that the ${SETTINGS_WORDS[left.part]} no longer have.`;
    case 'address':
      return `${title}: ‘${titleIn(site, left.of)}’ has taken the address.`;
  }
}
