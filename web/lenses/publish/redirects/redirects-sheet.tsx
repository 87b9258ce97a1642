import { CornerUpRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { AskedKind, Named } from '../../../settings/settings-kind.ts';
import { useMissed, useRedirects } from '../../../api/releases.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { BringRedirects } from './bring-redirects.tsx';
import { MissedList } from './missed-list.tsx';
import { OneRedirect } from './one-redirect.tsx';
import { idOfRedirect } from './redirect-words.ts';
import { toSettle } from './to-settle.ts';
import { RedirectList } from './redirect-list.tsx';

const VIEWS = ['lead', 'missed', 'bring'] as const;
type View = (typeof VIEWS)[number];

/** The addresses that lead elsewhere, those that visitors asked for in vain, and a table of redirects to bring. */
export const REDIRECTS: AskedKind = {
  edits: 'shape',
  title: 'Redirects',
  one: 'redirect',
  Sign: CornerUpRight,
  description:
    'An address that has been live keeps working: it leads to its page, wherever that is now, or to what replaced it. You need to do nothing.',
  useItems: useAll,
  List: Redirects,
  One: OneRedirect,
};

/** Those that wait for a release, then those that visitors have. */
function useAll(): readonly Named[] | undefined {
  const { site, shown } = useWorkbench();
  const redirects = useRedirects(site.key, shown.revision);
  const drafted = site.settings.redirects;
  return useMemo(() => {
    if (!redirects) return undefined;
    const live = redirects.map((one) => ({ id: idOfRedirect(one), name: one.path }));
    const known = new Set(live.map(({ id }) => id));
    return [...drafted.filter(({ id }) => !known.has(id)).map(({ id, from }) => ({ id, name: from })), ...live];
  }, [redirects, drafted]);
}

function Redirects() {
  const { site, shown, mayEdit } = useWorkbench();
  const redirects = useRedirects(site.key, shown.revision);
  const missed = useMissed(site.key);
  const [view, setView] = useState<View>('lead');
  const names: Readonly<Record<View, string>> = {
    lead: `Lead elsewhere${redirects ? ` (${redirects.length})` : ''}`,
    missed: `Not found${missed ? ` (${toSettle(missed, site).length})` : ''}`,
    bring: 'Import a table',
  };
  return (
    <>
      <div role="group" aria-label="What to look at" className="mb-3 flex flex-wrap gap-1">
        {VIEWS.filter((one) => mayEdit || one !== 'bring').map((one) => (
          <Button
            key={one}
            look={one === view ? 'chosen' : 'quiet'}
            isTight
            aria-pressed={one === view}
            onClick={() => setView(one)}
          >
            {names[one]}
          </Button>
        ))}
      </div>
      {view === 'lead' ? (
        <RedirectList redirects={redirects} />
      ) : view === 'missed' ? (
        <MissedList missed={missed} />
      ) : (
        <BringRedirects onDone={() => setView('lead')} />
      )}
    </>
  );
}
