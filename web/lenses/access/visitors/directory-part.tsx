import { momentWords } from '#core/model/moment-words.ts';
import { useState } from 'react';
import { toast } from 'sonner';
import type { AudienceId } from '#core/model/audience.ts';
import type { SyncKind } from '#core/visitors/directory-sync.ts';
import type { DirectoryAnswer, LastSync, SyncAnswer } from '#contract/directory.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { setDirectory, syncDirectory, useDirectory } from '../../../api/directory.ts';
import { Button } from '../../../ui/button.tsx';
import { Tick } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

const KIND_WORDS: Readonly<Record<SyncKind, string>> = {
  made: 'New',
  changed: 'Changes',
  suspended: 'Suspended',
  restored: 'Back again',
  'in the way': 'In the way',
};
const MAX_SHOWN = 50;

/** The organisation's directory: which of its groups give an audience, and keeping the accounts in step with it. */
export function DirectoryPart() {
  const { site } = useWorkbench();
  const directory = useDirectory(site.key);
  const [seen, setSeen] = useState<SyncAnswer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  if (directory === undefined) return <p className="text-quiet">Asking the directory …</p>;
  if (!directory.isConnected)
    return (
      <p className="text-quiet">
        No directory is connected. Whoever runs Spur can connect a SCIM 2.0 directory with SPUR_DIRECTORY_URL and
        SPUR_DIRECTORY_TOKEN; its groups then appear here.
      </p>
    );
  const during = async (work: () => Promise<void>) => {
    setBusy(true);
    setFault(null);
    try {
      await work();
    } catch (problem) {
      setFault(wordsOfFault(problem));
    }
    setBusy(false);
  };
  const set = (change: Partial<Pick<DirectoryAnswer, 'groupAudiences' | 'isNightly'>>) => {
    const { groupAudiences, isNightly } = { ...directory, ...change };
    setSeen(null);
    void during(() => setDirectory(site.key, { groupAudiences, isNightly }));
  };
  const ask = (apply: boolean) =>
    during(async () => {
      const answer = await syncDirectory(site.key, apply);
      if (apply) toast('The accounts are in step with the directory.');
      setSeen(apply ? null : answer);
    });
  const doable = seen?.items.filter(({ kind }) => kind !== 'in the way').length ?? 0;
  return (
    <div className="flex flex-col gap-4">
      <p className="text-quiet">
        Everyone in one of these groups has an account and belongs to its audience. Audiences that you add by hand stay;
        whoever leaves the directory is suspended.
      </p>
      {(fault ?? directory.fault) && <Notice>{fault ?? directory.fault}</Notice>}
      <Groups directory={directory} isBusy={isBusy} onSet={(groupAudiences) => set({ groupAudiences })} />
      <Tick
        label="Synchronise every night, at half past two UTC"
        hint="If more than a fifth of the accounts would be suspended at once, it waits for you."
        checked={directory.isNightly}
        disabled={isBusy}
        onChange={() => set({ isNightly: !directory.isNightly })}
      />
      {directory.last && <Last last={directory.last} />}
      {seen && <Items seen={seen} />}
      <div>
        {seen === null || doable === 0 ? (
          <Button look="main" disabled={isBusy || directory.fault !== null} onClick={() => void ask(false)}>
            {seen === null ? 'See what changes' : 'Look again'}
          </Button>
        ) : (
          <Button look="main" disabled={isBusy} onClick={() => void ask(true)}>
            Synchronise {doable === 1 ? '1 account' : `${doable} accounts`}
          </Button>
        )}
      </div>
    </div>
  );
}

function Groups({
  directory: { groups, groupAudiences },
  isBusy,
  onSet,
}: {
  readonly directory: DirectoryAnswer;
  readonly isBusy: boolean;
  readonly onSet: (groupAudiences: DirectoryAnswer['groupAudiences']) => void;
}) {
  const { site } = useWorkbench();
  const { audiences } = site.settings;
  if (audiences.length === 0)
    return <p className="text-quiet">A group maps to an audience. Add one under Audiences first.</p>;
  return (
    <ul aria-label="Groups of the directory" className="divide-y divide-rule border-y border-rule">
      {groups.map(({ id, name, members }) => (
        <li key={id} className="flex items-center gap-3 py-1.5">
          <span className="min-w-0 flex-1 truncate">
            {name} <span className="text-small text-quiet">{members === 1 ? '1 person' : `${members} people`}</span>
          </span>
          <select
            aria-label={`The audience of the group ${name}`}
            value={groupAudiences[id] ?? ''}
            disabled={isBusy}
            onChange={(event) => {
              const others = Object.fromEntries(Object.entries(groupAudiences).filter(([group]) => group !== id));
              onSet(event.target.value === '' ? others : { ...others, [id]: event.target.value as AudienceId });
            }}
            className="h-8 w-48 rounded-md max-md:w-32 border border-edge bg-raised px-2"
          >
            <option value="">No audience</option>
            {audiences.map((audience) => (
              <option key={audience.id} value={audience.id}>
                {audience.name}
              </option>
            ))}
          </select>
        </li>
      ))}
    </ul>
  );
}

function Last({ last: { at, by, made, changed, suspended, inTheWay, fault } }: { readonly last: LastSync }) {
  const counts = [
    made > 0 && `${made} new`,
    changed > 0 && `${changed} changed`,
    suspended > 0 && `${suspended} suspended`,
    inTheWay > 0 && `${inTheWay} in the way`,
  ].filter(Boolean);
  const { timeZone } = useWorkbench().site.settings;
  const when = `Last on ${momentWords(at, timeZone)} by ${by}`;
  return (
    <p className={`text-small ${fault === null ? 'text-quiet' : 'text-attention'}`}>
      {fault === null
        ? `${when}: ${counts.length === 0 ? 'nothing to change' : counts.join(', ')}.`
        : `${when}. ${fault}`}
    </p>
  );
}

function Items({ seen: { items } }: { readonly seen: SyncAnswer }) {
  const { site } = useWorkbench();
  const names = (ids: readonly AudienceId[]) =>
    ids.map((id) => site.settings.audiences.find((one) => one.id === id)?.name ?? 'an unknown audience').join(', ');
  return (
    <section aria-label="What changes" className="rounded-md border border-rule px-4 py-3">
      {items.length === 0 ? (
        <p>Nothing changes: the accounts are in step with the directory.</p>
      ) : (
        <ul className="flex flex-col gap-1.5 text-small">
          {items.slice(0, MAX_SHOWN).map(({ kind, name, email, gains, loses, isTakenOver }) => (
            <li key={email} className="flex gap-3">
              <span
                className={`w-24 shrink-0 font-medium ${kind === 'suspended' || kind === 'in the way' ? 'text-attention' : ''}`}
              >
                {KIND_WORDS[kind]}
              </span>
              <span className="min-w-0 flex-1">
                {name} <span className="text-quiet">{email}</span>
                <span className="block text-quiet">
                  {kind === 'in the way'
                    ? 'Another account has this address. Change one of them.'
                    : [
                        gains.length > 0 && `joins ${names(gains)}`,
                        loses.length > 0 && `leaves ${names(loses)}`,
                        isTakenOver && 'the account will be managed by the directory',
                        gains.length + loses.length === 0 && !isTakenOver && 'another name or address',
                      ]
                        .filter(Boolean)
                        .join('; ')}
                </span>
              </span>
            </li>
          ))}
          {items.length > MAX_SHOWN && <li className="text-quiet">and {items.length - MAX_SHOWN} more</li>}
        </ul>
      )}
    </section>
  );
}
