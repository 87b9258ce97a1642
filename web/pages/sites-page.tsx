import { formatDistanceToNow } from 'date-fns';
import { ArchiveRestore, ExternalLink, Pencil, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { SiteSummary } from '#contract/api.ts';
import { wordsOfFault } from '../api/client.ts';
import { useLooksAfterAll } from '../api/session.ts';
import { useSites } from '../api/sites.ts';
import { AccountMenu } from '../account/account-menu.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { Wordmark } from '../ui/wordmark.tsx';
import { DeleteSiteDialog } from './delete-site-dialog.tsx';
import { DeletedSites } from './deleted-sites.tsx';
import { MakeSiteDialog } from './make-site-dialog.tsx';
import { RenameSiteDialog } from './rename-site-dialog.tsx';
import { SiteAtAGlance } from './site-at-a-glance.tsx';
import { RestoreSiteDialog } from './restore-site-dialog.tsx';

export function SitesPage() {
  const { sites, fault } = useSites();
  const mayMake = useLooksAfterAll();
  const [isMaking, setMaking] = useState(false);
  const [isRestoring, setRestoring] = useState(false);
  const [renamed, setRenamed] = useState<SiteSummary | null>(null);
  const [deleted, setDeleted] = useState<SiteSummary | null>(null);
  return (
    <div className="flex min-h-full flex-col">
      <header className="flex h-bar items-center justify-between border-b border-rule bg-raised px-4">
        <Wordmark />
        <AccountMenu />
      </header>
      <main className="mx-auto w-full max-w-5xl flex-1 px-4 py-8">
        <div className="mb-5 flex flex-wrap items-end justify-between gap-3">
          <h1 className="font-display text-display leading-tight font-semibold tracking-tight">Sites</h1>
          {mayMake && (
            <div className="flex flex-wrap gap-2">
              <Button onClick={() => setRestoring(true)}>
                <ArchiveRestore size={16} aria-hidden /> Restore a site…
              </Button>
              <Button look="main" onClick={() => setMaking(true)}>
                <Plus size={16} aria-hidden /> New site
              </Button>
            </div>
          )}
        </div>
        {fault ? <Notice>{wordsOfFault(fault)}</Notice> : null}
        {sites?.length === 0 && <EmptySites onMake={mayMake ? () => setMaking(true) : null} />}
        {sites && sites.length > 0 && (
          <ul className="divide-y divide-rule rounded-lg border border-rule bg-raised">
            {sites.map((site) => (
              <SiteItem
                key={site.key}
                site={site}
                onRename={mayMake ? () => setRenamed(site) : null}
                onDelete={mayMake ? () => setDeleted(site) : null}
              />
            ))}
          </ul>
        )}
        {mayMake && <DeletedSites />}
      </main>
      {isMaking && <MakeSiteDialog onClose={() => setMaking(false)} />}
      {isRestoring && <RestoreSiteDialog onClose={() => setRestoring(false)} />}
      {deleted && <DeleteSiteDialog site={deleted} onClose={() => setDeleted(null)} />}
      {renamed && <RenameSiteDialog site={renamed} onClose={() => setRenamed(null)} />}
    </div>
  );
}

interface SiteItemProps {
  readonly site: SiteSummary;
  readonly onRename: (() => void) | null;
  readonly onDelete: (() => void) | null;
}

function SiteItem({ site, onRename, onDelete }: SiteItemProps) {
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-6 gap-y-1 px-5 py-4 md:grid-cols-[minmax(0,1fr)_9rem_13rem_auto]">
      <div className="min-w-0">
        <Link
          to={`/sites/${site.key}`}
          className="inline-block py-0.5 font-display text-large font-semibold text-ink hover:text-accent hover:underline"
        >
          {site.name}
        </Link>
        <p className="truncate font-mono text-small">
          {site.livePages > 0 ? (
            <a
              href={site.liveAddress}
              target="_blank"
              rel="noreferrer"
              className="inline-flex min-h-6 items-center gap-1 text-accent hover:underline"
            >
              {site.liveAddress} <ExternalLink size={12} aria-label="opens in a new tab" />
            </a>
          ) : (
            <span className="text-quiet">{site.liveAddress}</span>
          )}
        </p>
      </div>
      <p className="order-3 md:order-none">
        {site.pages === 1 ? '1 page' : `${site.pages} pages`}
        <span className="block text-small text-quiet">
          {site.livePages === 0 ? 'none live yet' : `${site.livePages} live`}
        </span>
      </p>
      <p className="order-4 md:order-none">
        <time dateTime={site.changedAt}>{formatDistanceToNow(new Date(site.changedAt), { addSuffix: true })}</time>
        <span className="block text-small text-quiet">
          {site.changedBy ? `by ${site.changedBy}` : 'not changed yet'}
        </span>
      </p>
      <div className="flex">
        {onRename && (
          <IconButton name={`Rename ${site.name}`} onClick={onRename}>
            <Pencil size={16} aria-hidden />
          </IconButton>
        )}
        {onDelete && (
          <IconButton name={`Delete ${site.name}`} onClick={onDelete}>
            <Trash2 size={16} aria-hidden />
          </IconButton>
        )}
      </div>
      <SiteAtAGlance site={site} />
    </li>
  );
}

function EmptySites({ onMake }: { readonly onMake: (() => void) | null }) {
  return (
    <div className="rounded-lg border border-dashed border-edge px-8 py-12 text-center">
      <p className="font-display text-large font-semibold">
        {onMake ? 'There is no site yet' : 'No site is open to you'}
      </p>
      <p className="mx-auto mt-1 max-w-md text-quiet">
        {onMake
          ? 'A site is a page tree with its settings. Its menus, addresses and sitemap file follow from the tree.'
          : 'You have an account, and no role on any site. Ask whoever invited you.'}
      </p>
      {onMake && (
        <Button look="main" onClick={onMake} className="mt-4">
          Create the first site
        </Button>
      )}
    </div>
  );
}
