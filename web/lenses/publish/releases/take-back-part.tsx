import { useMemo, useState } from 'react';
import type { TakeBackAnswer } from '#contract/releases.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { useTakeBack } from '../../../api/releases.ts';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { listOf, pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { type Marks, useWorkbench } from '../../../workbench/workbench-context.tsx';
import { SETTINGS_WORDS, titleIn } from '../publish-words.ts';
import { warnOfUnconfirmed } from '../unconfirmed.ts';
import { toast } from '../../../ui/toast.ts';

const MAX_LISTED = 8;

/** What taking a release back does, and what stands in the way, before it is done. */
export function TakeBackPart({ release, onDone }: { readonly release: number; readonly onDone: () => void }) {
  const { site, shown, store } = useWorkbench();
  const plan = useTakeBack(site.key, release, shown.revision);
  useMarkRows(useTakeBackMarks(plan));
  const [fault, setFault] = useState<string | null>(null);
  const [isRunning, setRunning] = useState(false);
  if (!plan) return <p className="text-quiet">Checking what stands in the way …</p>;
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
    <section aria-label={`Take back release ${release}`} className="flex flex-col gap-3">
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
        <ul className="font-mono text-small leading-6" aria-label="Addresses that change">
          {plan.addresses.slice(0, MAX_LISTED).map((one) => (
            <li key={one.page} className="break-all">
              <ShowRows pages={[one.page]}>
                <span className="text-quiet line-through">{one.before ?? 'none'}</span> →{' '}
                {one.after ?? <span className="font-sans">taken down</span>}
              </ShowRows>
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
          <ul className="text-small leading-6">
            {plan.left.slice(0, MAX_LISTED).map((one) => (
              <li key={one.page}>
                <ShowRows pages={[one.page]}>{leftWords(site, one)}</ShowRows>
              </li>
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

/** The rows that get back what they were, and those that stay. */
function useTakeBackMarks(plan: TakeBackAnswer | undefined): Marks | null {
  return useMemo(() => {
    if (!plan) return null;
    const words = new Map<PageId, string>(plan.pages.map((page) => [page, 'as it was before']));
    for (const { page } of plan.left) words.set(page, 'stays as it is');
    return { name: 'Taken back', words, isFaint: (page) => words.get(page) === 'stays as it is' };
  }, [plan]);
}

function leftSettingWords({ part, release }: TakeBackAnswer['leftSettings'][number]): string {
  if (release === null) return 'The home page: there was none before, it is not live, or another page has its address.';
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
    case 'practice':
      return `${title} is for practice now, which never goes live.`;
    case 'setting':
      return `${title} names something that the ${SETTINGS_WORDS[left.part]} no longer have.`;
    case 'address':
      return `${title}: ‘${titleIn(site, left.of)}’ has taken the address.`;
  }
}
