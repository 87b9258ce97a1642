import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { toSiteKey } from '#core/model/ids.ts';
import { wordsOfFault } from '../api/client.ts';
import { SiteStore } from '../api/site-store.ts';
import { Notice } from '../ui/notice.tsx';
import { WorkbenchScreen } from './workbench-screen.tsx';

/** Opens a site and follows its edits for as long as the page is shown. */
export function WorkbenchPage() {
  const { site: key = '' } = useParams();
  const [opened, setOpened] = useState<{ key: string; store: SiteStore } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => {
    let isGone = false;
    let stop: (() => void) | undefined;
    void (async () => {
      try {
        const store = await SiteStore.open(toSiteKey(key));
        if (isGone) return;
        stop = store.follow();
        setOpened({ key, store });
      } catch (reason) {
        if (!isGone) setFault(wordsOfFault(reason));
      }
    })();
    return () => {
      isGone = true;
      stop?.();
    };
  }, [key]);
  if (fault) {
    return (
      <main className="mx-auto max-w-lg p-8">
        <Notice>{fault}</Notice>
        <Link to="/sites" className="mt-4 inline-block text-accent underline">
          To the list of sites
        </Link>
      </main>
    );
  }
  if (opened?.key !== key) return <p className="p-6 text-quiet">Opening the site …</p>;
  return <WorkbenchScreen key={key} store={opened.store} />;
}
