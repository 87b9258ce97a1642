import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { type SettingsPart, waitingSettings } from '#core/changes/waiting-settings.ts';
import { type Because, planRelease, waitingPages } from '#core/changes/release-plan.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { wordsOfFault } from '../../api/client.ts';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Notice } from '../../ui/notice.tsx';
import { differs } from '../waiting.ts';
import { useWorkbench } from '../workbench-context.tsx';

type Scope = 'chosen' | 'branch' | 'all';
const MOST_LISTED = 12;

/** Makes pages live or takes them down, after saying what comes along and which addresses change. */
export function ReleaseDialog({ kind, onClose }: { readonly kind: 'live' | 'retire'; readonly onClose: () => void }) {
  const { site, store, chosen } = useWorkbench();
  const all = useMemo(() => waitingPages(site), [site]);
  const branch = useMemo(
    () => [...new Set(chosen.flatMap((id) => branchOf(site, id)))].filter((id) => differs(site, id)),
    [site, chosen],
  );
  const own = chosen.filter((id) => differs(site, id) || site.live.get(id)?.retired === true);
  const [scope, setScope] = useState<Scope>(own.length > 0 ? 'chosen' : branch.length > 0 ? 'branch' : 'all');
  const [fault, setFault] = useState<string | null>(null);
  const [isRunning, setRunning] = useState(false);
  const asked =
    kind === 'retire'
      ? { pages: [], retire: chosen }
      : { pages: scope === 'all' ? all : scope === 'branch' ? branch : own, retire: [] };
  const plan = useMemo(
    () => planRelease(site, asked),
    // What is asked for follows from what is listed.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [site, scope, kind, chosen],
  );
  const { pages: made, retire } = plan.operation;
  const settings = kind === 'live' ? waitingSettings(site).map((part) => SETTINGS_WORDS[part]) : [];
  const doing =
    [
      made.length > 0 && `Make ${pages(made.length)} live`,
      retire.length > 0 && `${made.length > 0 ? 'take' : 'Take'} ${pages(retire.length)} down`,
    ]
      .filter((words) => words !== false)
      .join(' and ') || (settings.length > 0 ? `Make the ${listOf(settings)} live` : '');
  const run = async () => {
    setRunning(true);
    setFault(null);
    try {
      const done = await store.release(kind === 'live' && scope === 'all' ? 'all' : [...asked.pages], [
        ...asked.retire,
      ]);
      toast.success(
        [done.pages > 0 && `${pages(done.pages)} made live.`, done.retired > 0 && `${pages(done.retired)} taken down.`]
          .filter(Boolean)
          .join(' ') || `Visitors have the ${listOf(settings)} now.`,
      );
      onClose();
    } catch (reason) {
      setFault(wordsOfFault(reason));
      setRunning(false);
    }
  };
  return (
    <Dialog
      title={kind === 'retire' ? 'Take down' : 'Make live'}
      description={
        kind === 'retire'
          ? 'Visitors no longer find these pages. The drafts stay as they are.'
          : 'Visitors get the pages as they are drafted now, at their places in the tree.'
      }
      isOpen
      isWide
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={doing === '' || isRunning} onClick={() => void run()}>
            {isRunning ? 'Working …' : doing || 'Nothing to make live'}
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-4 pb-2">
        {fault && <Notice>{fault}</Notice>}
        {kind === 'live' && (
          <fieldset className="flex flex-col gap-1.5">
            <legend className="mb-1 text-small font-medium">What</legend>
            <ScopeChoice
              value="chosen"
              scope={scope}
              setScope={setScope}
              count={own.length}
              words={chosen.length === 1 ? 'The selected page' : 'The selected pages'}
            />
            <ScopeChoice
              value="branch"
              scope={scope}
              setScope={setScope}
              count={branch.length}
              words="With all that waits below"
            />
            <ScopeChoice
              value="all"
              scope={scope}
              setScope={setScope}
              count={all.length}
              words="All that waits in the site"
            />
          </fieldset>
        )}
        {settings.length > 0 && (
          <p>
            Every release takes the settings of the site along. The {listOf(settings)} of the draft{' '}
            {settings.length === 1 && !settings[0]!.endsWith('s') ? 'differs' : 'differ'} from what visitors have.
          </p>
        )}
        <PageList
          heading="These"
          ids={(kind === 'retire' ? retire : made).filter((id) => !plan.along.some((one) => one.page === id))}
        />
        {plan.along.length > 0 && <Along along={plan.along} />}
        {scope === 'all' && kind === 'live' && retire.length > 0 && (
          <PageList heading="Removed from the tree, so taken down" ids={retire} />
        )}
        <AddressList changes={plan.addresses.filter((one) => one.before !== null)} />
      </div>
    </Dialog>
  );
}

const SETTINGS_WORDS: Readonly<Record<SettingsPart, string>> = {
  name: 'name of the site',
  language: 'language',
  audiences: 'audiences',
  labels: 'labels',
  menus: 'menus',
  layouts: 'layouts',
  trail: 'trails',
  facts: 'facts',
};
const listOf = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

function ScopeChoice({
  value,
  scope,
  setScope,
  count,
  words,
}: {
  readonly value: Scope;
  readonly scope: Scope;
  readonly setScope: (scope: Scope) => void;
  readonly count: number;
  readonly words: string;
}) {
  return (
    <label className={`inline-flex items-center gap-2 ${count === 0 ? 'text-quiet' : ''}`}>
      <input
        type="radio"
        name="scope"
        className="accent-accent"
        disabled={count === 0}
        checked={scope === value}
        onChange={() => setScope(value)}
      />
      {words} <span className="text-quiet">({count === 0 ? 'nothing differs' : pages(count)})</span>
    </label>
  );
}

/** The title of a page, of one that was removed too. */
function useTitle(): (id: PageId) => string {
  const { site } = useWorkbench();
  return (id) => {
    const node = maybeNodeAt(site, id) ?? site.nodes.get(id) ?? site.live.get(id)?.node;
    return node ? textIn(node.title, site.settings.language) : id;
  };
}

function PageList({ heading, ids }: { readonly heading: string; readonly ids: readonly PageId[] }) {
  const titleOf = useTitle();
  if (ids.length === 0) return null;
  return (
    <section>
      <h3 className="text-small font-medium">{heading}</h3>
      <p>
        {ids.slice(0, MOST_LISTED).map(titleOf).join(' · ')}
        {ids.length > MOST_LISTED && ` · and ${ids.length - MOST_LISTED} more`}
      </p>
    </section>
  );
}

const BECAUSE: Readonly<Record<Because, string>> = {
  above: 'stands above',
  address: 'still has the address that is needed by',
  below: 'stands below',
};

function Along({ along }: { readonly along: readonly { page: PageId; because: Because; of: PageId }[] }) {
  const titleOf = useTitle();
  return (
    <section className="rounded-md bg-attention-soft px-3 py-2">
      <h3 className="font-medium text-attention">
        {along.length === 1 ? '1 page comes along' : `${along.length} pages come along`}
      </h3>
      <ul className="mt-0.5">
        {along.slice(0, MOST_LISTED).map((one) => (
          <li key={one.page}>
            <span className="font-medium">{titleOf(one.page)}</span> {BECAUSE[one.because]} ‘{titleOf(one.of)}’
          </li>
        ))}
        {along.length > MOST_LISTED && <li>and {along.length - MOST_LISTED} more</li>}
      </ul>
    </section>
  );
}

function AddressList({
  changes,
}: {
  readonly changes: readonly { page: PageId; before: string | null; after: string | null }[];
}) {
  if (changes.length === 0) return <p className="text-quiet">No address that visitors have now changes.</p>;
  return (
    <section>
      <h3 className="text-small font-medium">
        {changes.length === 1 ? '1 address changes' : `${changes.length} addresses change`}
      </h3>
      <ul className="font-mono text-small">
        {changes.slice(0, MOST_LISTED).map((one) => (
          <li key={one.page} className="break-all">
            <span className="text-quiet line-through">{one.before}</span> →{' '}
            {one.after ?? <span className="font-sans">gone</span>}
          </li>
        ))}
        {changes.length > MOST_LISTED && <li className="font-sans">and {changes.length - MOST_LISTED} more</li>}
      </ul>
    </section>
  );
}
