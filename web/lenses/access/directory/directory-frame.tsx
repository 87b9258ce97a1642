import { type ReactNode, useState } from 'react';
import { momentWords } from '#core/model/moment-words.ts';
import type { SyncKind } from '#core/directory/directory-person.ts';
import type { LastSync } from '#contract/directory.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { Button } from '../../../ui/button.tsx';
import { Tick } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toast } from '../../../ui/toast.ts';

const KIND_WORDS: Readonly<Record<SyncKind, string>> = {
  made: 'New',
  changed: 'Changes',
  suspended: 'Suspended',
  restored: 'Back again',
  'in the way': 'In the way',
};
const MAX_SHOWN = 50;

/** One thing that a synchronisation would do, or did. */
export interface SyncLine {
  readonly kind: SyncKind;
  readonly name: string;
  readonly email: string;
  /** What it changes for them: "joins Staff". */
  readonly says: readonly string[];
}

/** Does something with the directory; until it has answered, and while it refuses, nothing else is done. */
export type During = (work: () => Promise<void>) => Promise<void>;

/**
 * The organisation's directory, whatever it gives: which groups count stands in it, then the nights, how it went last, and a
 * synchronisation that is looked at first.
 */
export function DirectoryFrame({
  directory,
  about,
  one,
  many,
  setNightly,
  sync,
  children,
}: {
  /** Undefined until it is known. */
  readonly directory:
    | {
        readonly isConnected: boolean;
        readonly fault: string | null;
        readonly isNightly: boolean;
        readonly last: LastSync | null;
      }
    | undefined;
  readonly about: string;
  /** What is kept in step, one and many of it: "account". */
  readonly one: string;
  readonly many: string;
  readonly setNightly: (isNightly: boolean) => Promise<void>;
  readonly sync: (apply: boolean) => Promise<readonly SyncLine[]>;
  readonly children: (part: { readonly isBusy: boolean; readonly during: During }) => ReactNode;
}) {
  const [seen, setSeen] = useState<readonly SyncLine[] | null>(null);
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
  const during: During = async (work) => {
    setBusy(true);
    setFault(null);
    try {
      await work();
    } catch (problem) {
      setFault(wordsOfFault(problem));
    }
    setBusy(false);
  };
  const change: During = (work) => {
    setSeen(null);
    return during(work);
  };
  const ask = (apply: boolean) =>
    during(async () => {
      const lines = await sync(apply);
      if (apply) toast(`The ${many} are in step with the directory.`);
      setSeen(apply ? null : lines);
    });
  const doable = seen?.filter(({ kind }) => kind !== 'in the way').length ?? 0;
  return (
    <div className="flex flex-col gap-4">
      <p className="text-quiet">{about}</p>
      {(fault ?? directory.fault) && <Notice>{fault ?? directory.fault}</Notice>}
      {children({ isBusy, during: change })}
      <Tick
        label="Synchronise every night, at half past two UTC"
        hint={`If more than a fifth of the ${many} would be suspended at once, it waits for you.`}
        checked={directory.isNightly}
        disabled={isBusy}
        onChange={() => void change(() => setNightly(!directory.isNightly))}
      />
      {directory.last && <Last last={directory.last} />}
      {seen && <Lines lines={seen} many={many} />}
      <div>
        {seen === null || doable === 0 ? (
          <Button look="main" disabled={isBusy || directory.fault !== null} onClick={() => void ask(false)}>
            {seen === null ? 'See what changes' : 'Look again'}
          </Button>
        ) : (
          <Button look="main" disabled={isBusy} onClick={() => void ask(true)}>
            Synchronise {doable === 1 ? `1 ${one}` : `${doable} ${many}`}
          </Button>
        )}
      </div>
    </div>
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

function Lines({ lines, many }: { readonly lines: readonly SyncLine[]; readonly many: string }) {
  return (
    <section aria-label="What changes" className="rounded-md border border-rule px-4 py-3">
      {lines.length === 0 ? (
        <p>Nothing changes: the {many} are in step with the directory.</p>
      ) : (
        <ul className="flex flex-col gap-1.5 text-small">
          {lines.slice(0, MAX_SHOWN).map(({ kind, name, email, says }, at) => (
            <li key={at} className="flex gap-3">
              <span
                className={`w-24 shrink-0 font-medium ${kind === 'suspended' || kind === 'in the way' ? 'text-attention' : ''}`}
              >
                {KIND_WORDS[kind]}
              </span>
              <span className="min-w-0 flex-1">
                {name} <span className="text-quiet">{email}</span>
                <span className="block text-quiet">
                  {kind === 'in the way' ? 'Another account has this address. Change one of them.' : says.join('; ')}
                </span>
              </span>
            </li>
          ))}
          {lines.length > MAX_SHOWN && <li className="text-quiet">and {lines.length - MAX_SHOWN} more</li>}
        </ul>
      )}
    </section>
  );
}
