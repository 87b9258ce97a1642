import { subYears } from 'date-fns';
import { CornerUpRight } from 'lucide-react';
import { useState } from 'react';
import type { LiveRedirect } from '#contract/releases.ts';
import { ListOfSettings, ListedItem } from '../../../settings/listed-item.tsx';
import { TextField, Tick } from '../../../ui/field.tsx';
import { useNow } from '../../../ui/use-now.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { NewRedirect } from './new-redirect.tsx';
import { destinationWords, idOfRedirect, reasonSentence } from './redirect-words.ts';

const MAX_LISTED = 100;

/** The addresses that lead elsewhere, with why, where to, and how often visitors met them. */
export function RedirectList({ redirects }: { readonly redirects: readonly LiveRedirect[] | undefined }) {
  const { site, mayEdit } = useWorkbench();
  const [words, setWords] = useState('');
  const [isUnused, setUnused] = useState(false);
  const now = useNow();
  const drafted = new Set(site.settings.redirects.map(({ id }) => id));
  const live = new Set(redirects?.map(({ redirect }) => redirect));
  const made = site.settings.redirects.filter(({ id }) => !live.has(id));
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
      {made.length > 0 && (
        <section aria-labelledby="waiting">
          <h3 id="waiting" className="mb-1 font-medium text-attention">
            Waiting for a release
          </h3>
          <ListOfSettings>
            {made.map(({ id, from, to }) => (
              <ListedItem
                key={id}
                to={{ kind: 'redirects', id }}
                sign={<CornerUpRight size={16} aria-hidden />}
                name={<Route from={from} to={destinationWords(site, to)} />}
                says=""
              />
            ))}
          </ListOfSettings>
        </section>
      )}
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
        <ListOfSettings label="Addresses that lead elsewhere">
          {found.slice(0, MAX_LISTED).map((one) => (
            <ListedItem
              key={`${one.because} ${one.path}`}
              to={{ kind: 'redirects', id: idOfRedirect(one) }}
              sign={<CornerUpRight size={16} aria-hidden />}
              name={<Route from={one.path} to={destinationWords(site, one.to)} />}
              says={reasonSentence(site, one)}
              waits={one.redirect !== null && !drafted.has(one.redirect) && 'Removed with the next release'}
            />
          ))}
        </ListOfSettings>
      )}
      {found.length > MAX_LISTED && (
        <p className="text-quiet">and {found.length - MAX_LISTED} more. Search by part of the address.</p>
      )}
    </div>
  );
}

function Route({ from, to }: { readonly from: string; readonly to: string }) {
  return (
    <span className="font-mono text-small font-normal">
      {from} <span className="text-quiet">→</span> {to}
    </span>
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
