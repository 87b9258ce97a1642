import { subYears } from 'date-fns';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { RedirectReason } from '#core/derive/redirects.ts';
import type { Destination, Redirect } from '#core/model/redirect.ts';
import type { Site } from '#core/model/site.ts';
import type { LiveRedirect } from '#contract/releases.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { liveAddress } from '../../../tree/live-address.ts';
import { Button, IconButton } from '../../../ui/button.tsx';
import { TextField, Tick } from '../../../ui/field.tsx';
import { useNow } from '../../../ui/use-now.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { titleIn } from '../publish-words.ts';
import { NewRedirect } from './new-redirect.tsx';

const REASON_WORDS: Readonly<Record<RedirectReason, string>> = {
  'by hand': 'by hand',
  pattern: 'by hand, with everything below',
  moved: 'its page moved',
  'taken down': 'its page was taken down',
  'old site': 'from the old site',
};
const MAX_LISTED = 100;

/** The addresses that lead elsewhere, with why, where to, and how often visitors met them. */
export function RedirectList({ redirects }: { readonly redirects: readonly LiveRedirect[] | undefined }) {
  const { site, mayEdit } = useWorkbench();
  const [words, setWords] = useState('');
  const [isUnused, setUnused] = useState(false);
  const now = useNow();
  if (!redirects) return <p className="text-quiet">Loading …</p>;
  const yearAgo = subYears(now, 1).toISOString();
  const isOld = ({ lastHit, since }: LiveRedirect) => (lastHit ?? since ?? yearAgo) <= yearAgo;
  const found = redirects.filter(
    (one) =>
      (!isUnused || isOld(one)) &&
      (words === '' || `${one.path} ${destinationWords(site, one.to)}`.toLowerCase().includes(words.toLowerCase())),
  );
  return (
    <div className="flex flex-col gap-3 pb-2">
      {mayEdit && <NewRedirect />}
      <Waiting redirects={redirects} />
      <div className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <div className="w-56">
          <TextField label="Find" value={words} onChange={(event) => setWords(event.target.value)} />
        </div>
        <div className="pb-1.5">
          <Tick label="Not used for a year" checked={isUnused} onChange={() => setUnused(!isUnused)} />
        </div>
        <Take />
      </div>
      {found.length === 0 ? (
        <p className="text-quiet">
          {redirects.length === 0
            ? 'No redirects yet. Move a live page, and its old address appears here after the next release.'
            : 'No redirect matches.'}
        </p>
      ) : (
        <ul aria-label="Addresses that lead elsewhere" className="divide-y divide-rule">
          {found.slice(0, MAX_LISTED).map((one) => (
            <OneRedirect key={`${one.because} ${one.path}`} redirect={one} />
          ))}
        </ul>
      )}
      {found.length > MAX_LISTED && (
        <p className="text-quiet">and {found.length - MAX_LISTED} more. Search by part of the address.</p>
      )}
    </div>
  );
}

function OneRedirect({ redirect: one }: { readonly redirect: LiveRedirect }) {
  const { site, store, mayEdit } = useWorkbench();
  const isDrafted = one.redirect !== null && site.settings.redirects.some(({ id }) => id === one.redirect);
  return (
    <li className="flex items-start gap-3 py-1.5">
      <div className="min-w-0 flex-1">
        <p className="font-mono text-small break-all">
          {one.path} <span className="text-quiet">→</span> {destinationWords(site, one.to)}
        </p>
        <p className="text-small text-quiet">
          {one.isResting ? 'Not used: a page has the address. ' : ''}
          {capitalReason(one)}
          {one.since !== null && `, since ${momentWords(one.since, site.settings.timeZone)}`} ·{' '}
          {one.hits === 0
            ? 'not met yet'
            : `used ${one.hits === 1 ? 'once' : `${one.hits} times`}, last on ${momentWords(one.lastHit!, site.settings.timeZone)}`}
        </p>
      </div>
      {mayEdit && isDrafted && (
        <IconButton
          name={`Remove the redirect from ${one.path}`}
          onClick={() => store.apply([{ name: 'redirect.remove', redirect: one.redirect! }])}
        >
          <Trash2 size={16} aria-hidden />
        </IconButton>
      )}
    </li>
  );
}

const capitalReason = ({ because }: LiveRedirect): string => {
  const words = REASON_WORDS[because];
  return words.charAt(0).toUpperCase() + words.slice(1);
};

/** What was made or taken away by hand and waits for a release. */
function Waiting({ redirects }: { readonly redirects: readonly LiveRedirect[] }) {
  const { site, store, mayEdit } = useWorkbench();
  const live = new Set(site.liveSettings?.redirects.map(({ id }) => id));
  const made = site.settings.redirects.filter(({ id }) => !live.has(id));
  const drafted = new Set(site.settings.redirects.map(({ id }) => id));
  const taken = redirects.filter(({ redirect }) => redirect !== null && !drafted.has(redirect));
  if (made.length + taken.length === 0) return null;
  return (
    <section aria-labelledby="waiting" className="rounded-md bg-attention-soft px-3 py-2">
      <h3 id="waiting" className="font-medium text-attention">
        Waiting for a release
      </h3>
      <ul className="text-small">
        {made.map((one: Redirect) => (
          <li key={one.id} className="flex items-center gap-2">
            <span className="min-w-0 flex-1 font-mono break-all">
              {one.from} → {destinationWords(site, one.to)}
            </span>
            {mayEdit && (
              <Button
                look="quiet"
                isTight
                className="h-6"
                onClick={() => store.apply([{ name: 'redirect.remove', redirect: one.id }])}
              >
                Remove
              </Button>
            )}
          </li>
        ))}
        {taken.map((one) => (
          <li key={one.path}>
            <span className="font-mono line-through">{one.path}</span> is removed
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The redirects as files. */
function Take() {
  const { site } = useWorkbench();
  const files = [
    { format: 'redirects.csv', words: 'CSV' },
    { format: 'redirects.nginx', words: 'nginx' },
    { format: 'redirects.apache', words: 'Apache' },
  ];
  return (
    <p className="ml-auto pb-1.5 text-small">
      Export:{' '}
      {files.map(({ format, words }, at) => (
        <span key={format}>
          {at > 0 && ' · '}
          <a className="text-accent underline" href={`/api/sites/${site.key}/exports/${format}`} download>
            {words}
          </a>
        </span>
      ))}
    </p>
  );
}

export function destinationWords(site: Site, to: Destination): string {
  if (to === 'gone') return 'gone (410)';
  if ('url' in to) return to.url;
  return liveAddress(site, to.page) ?? `‘${titleIn(site, to.page)}’`;
}
