import { CircleStop, Link2 } from 'lucide-react';
import { wordsOfFault } from '../../api/client.ts';
import { askOutsideLinks, stopLinkLook, useLinkLook } from '../../api/links.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { pages } from '../../tree/words.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { BarAction } from '../../workbench/bar-action.ts';
import { toast } from '../../ui/toast.ts';

/** How many links do not lead where they should, and when outside addresses were checked. */
export function ChecksSays() {
  const { site, findings, settingsFindings } = useWorkbench();
  const look = useLinkLook(site.key);
  const { ofLinks, ofPages } = findings;
  const count =
    ofLinks === null ? null : [...ofLinks.values()].reduce((sum, of) => sum + of.length, settingsFindings.length);
  const isBusy = look?.state === 'running';
  const report = look?.report ?? null;
  return (
    <>
      <p role="status" className={count ? 'font-medium text-attention' : 'text-quiet'}>
        {count === null
          ? 'Checking the links …'
          : count === 0
            ? 'Every link works.'
            : count === 1
              ? '1 link does not lead where it should.'
              : `${count} links do not work.`}
      </p>
      {ofPages !== null && ofPages.size > 0 && (
        <p className="font-medium text-attention">
          {pages(ofPages.size)} {ofPages.size === 1 ? 'lacks' : 'lack'} something.
        </p>
      )}
      <p className="text-quiet" title={report === null ? undefined : 'They are checked again each night.'}>
        {isBusy
          ? `Checking outside addresses: ${look.addressesRead} of ${look.addressesKnown}`
          : look?.state === 'failed'
            ? 'The check of outside addresses did not finish.'
            : report === null
              ? 'Outside addresses have not been checked yet.'
              : `${report.addresses === 1 ? '1 outside address was' : `${report.addresses} outside addresses were`} checked on ${momentWords(report.readAt, site.settings.timeZone)}.`}
      </p>
      {isBusy && (
        <progress
          aria-label="How many outside addresses have been checked"
          className="h-2 w-24"
          value={look.addressesRead}
          max={Math.max(1, look.addressesKnown)}
        />
      )}
    </>
  );
}

/** Asking outside addresses again. */
export function useChecksActions(): readonly BarAction[] {
  const { site, mayEdit } = useWorkbench();
  const look = useLinkLook(site.key);
  const during = (work: Promise<void>) => void work.catch((problem: unknown) => toast.error(wordsOfFault(problem)));
  if (!mayEdit) return [];
  if (look?.state === 'running')
    return [
      {
        label: 'Stop checking',
        words: 'Stop checking outside addresses',
        Sign: CircleStop,
        run: () => during(stopLinkLook(site.key)),
      },
    ];
  return [
    {
      label: look?.report ? 'Check them again' : 'Check outside addresses',
      words: look?.report ? 'Check them again: outside addresses' : 'Check outside addresses',
      also: ['broken links', 'dead links'],
      Sign: Link2,
      isOff: look === undefined,
      run: () => during(askOutsideLinks(site.key)),
    },
  ];
}
