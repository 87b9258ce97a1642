import { Link2 } from 'lucide-react';
import { toast } from 'sonner';
import { wordsOfFault } from '../../api/client.ts';
import { askOutsideLinks, stopLinkLook, useLinkLook } from '../../api/links.ts';
import { momentWords } from '../../fields/site-moment.ts';
import { Button } from '../../ui/button.tsx';
import { pages } from '../../tree/words.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** How many links do not lead where they should, and asking outside addresses again. It stands above the tree in the Checks lens. */
export function ChecksBar() {
  const { site, findings, settingsFindings, mayEdit } = useWorkbench();
  const look = useLinkLook(site.key);
  const { ofLinks, ofPages } = findings;
  const count =
    ofLinks === null ? null : [...ofLinks.values()].reduce((sum, of) => sum + of.length, settingsFindings.length);
  const isBusy = look?.state === 'running';
  const report = look?.report ?? null;
  const during = (work: Promise<void>) => void work.catch((problem: unknown) => toast.error(wordsOfFault(problem)));
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-paper px-4 py-1 text-small max-md:px-2">
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
      <p
        className="text-quiet max-md:hidden"
        title={report === null ? undefined : 'They are checked again each night.'}
      >
        {isBusy
          ? `Checking outside addresses: ${look.addressesRead} of ${look.addressesKnown}`
          : look?.state === 'failed'
            ? 'The check of outside addresses did not finish.'
            : report === null
              ? 'Outside addresses have not been checked yet.'
              : `${report.addresses === 1 ? '1 outside address was' : `${report.addresses} outside addresses were`} checked on ${momentWords(report.readAt, site.settings.timeZone)}.`}
      </p>
      {mayEdit && (
        <div className="ml-auto flex items-center gap-2">
          {isBusy && (
            <progress
              aria-label="How many outside addresses have been checked"
              className="h-2 w-24"
              value={look.addressesRead}
              max={Math.max(1, look.addressesKnown)}
            />
          )}
          {isBusy ? (
            <Button look="quiet" isTight onClick={() => during(stopLinkLook(site.key))}>
              Stop checking
            </Button>
          ) : (
            <Button
              look="quiet"
              isTight
              disabled={look === undefined}
              onClick={() => during(askOutsideLinks(site.key))}
            >
              <Link2 size={15} aria-hidden /> {report === null ? 'Check outside addresses' : 'Check them again'}
            </Button>
          )}
        </div>
      )}
    </div>
  );
}
