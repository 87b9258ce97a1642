import { useCallback, useMemo, useState } from 'react';
import { waitingPages } from '#core/changes/release-plan.ts';
import type { PartAlong } from '#core/changes/settings-along.ts';
import { waitingSettings } from '#core/changes/waiting-settings.ts';
import type { PageId } from '#core/model/ids.ts';
import type { SettingsPart } from '#core/model/settings-parts.ts';
import { branchOf } from '#core/model/site.ts';
import { useLiveChanges } from '../../../api/find.ts';
import { pages } from '../../../tree/words.ts';
import { differs } from '../publish-waiting.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { SETTINGS_WORDS, capital, titleIn } from '../publish-words.ts';

export type Scope = 'chosen' | 'branch' | 'person' | 'all' | 'picked' | 'none';

export interface Scopes {
  /** The pages that were selected when the release was begun. */
  readonly chosen: readonly PageId[];
  readonly scope: Scope;
  readonly setScope: (scope: Scope) => void;
  /** Whose changes go live, where one person's do. */
  readonly person: string;
  readonly setPerson: (person: string) => void;
  /** Who changed something last that waits, with how many pages. */
  readonly people: ReadonlyMap<string, number>;
  /** What each scope holds. */
  readonly pagesOf: Readonly<Record<Scope, readonly PageId[]>>;
  readonly asked: readonly PageId[];
  /** Takes a page in or leaves it out: from then on the release is of those that are ticked. */
  readonly pick: (page: PageId) => void;
  /** Leaves pages out, as unticking them does. */
  readonly leaveOut: (pages: readonly PageId[]) => void;
  /** The parts of the settings that wait. */
  readonly settings: readonly SettingsPart[];
}

/** What a release can be of, and which of it is chosen. */
export function useScopes(kind: 'live' | 'retire', chosen: readonly PageId[]): Scopes {
  const { site, shown } = useWorkbench();
  const changes = useLiveChanges(site.key, kind === 'live' ? shown.revision : null);
  const [person, setPerson] = useState('');
  const [picked, setPicked] = useState<readonly PageId[]>([]);
  const all = useMemo(() => waitingPages(site), [site]);
  const people = useMemo(() => {
    const found = new Map<string, number>();
    for (const id of all) {
      const by = changes?.get(id)?.by;
      if (by !== undefined) found.set(by, (found.get(by) ?? 0) + 1);
    }
    return found;
  }, [all, changes]);
  const whose = person !== '' ? person : ([...people.keys()][0] ?? '');
  const pagesOf = useMemo(
    () => ({
      chosen: chosen.filter((id) => differs(site, id) || site.live.get(id)?.retired === true),
      branch: [...new Set(chosen.flatMap((id) => branchOf(site, id)))].filter((id) => differs(site, id)),
      person: all.filter((id) => changes?.get(id)?.by === whose),
      all,
      picked,
      none: [],
    }),
    [site, chosen, all, changes, whose, picked],
  );
  const [scope, setScope] = useState<Scope>(() =>
    pagesOf.chosen.length > 0 ? 'chosen' : pagesOf.branch.length > 0 ? 'branch' : all.length > 0 ? 'all' : 'none',
  );
  const asked: readonly PageId[] = pagesOf[scope];
  const pick = useCallback(
    (page: PageId) => {
      setPicked(asked.includes(page) ? asked.filter((one) => one !== page) : [...asked, page]);
      setScope('picked');
    },
    [asked],
  );
  const leaveOut = useCallback(
    (pages: readonly PageId[]) => {
      setPicked(asked.filter((one) => !pages.includes(one)));
      setScope('picked');
    },
    [asked],
  );
  return {
    chosen,
    scope,
    setScope,
    person: whose,
    setPerson,
    people,
    pagesOf,
    asked,
    pick,
    leaveOut,
    settings: waitingSettings(site),
  };
}

/** Of which pages the release is. */
export function ReleaseScope({ scopes }: { readonly scopes: Scopes }) {
  const { chosen, people, person, setPerson, scope, setScope, settings } = scopes;
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="mb-1 text-small font-medium">What</legend>
      <ScopeChoice
        value="chosen"
        scopes={scopes}
        words={chosen.length === 1 ? 'The selected page' : 'The selected pages'}
      />
      <ScopeChoice value="branch" scopes={scopes} words="With everything that waits below" />
      {people.size > 0 && (
        <div className="flex flex-wrap items-center gap-2">
          <ScopeChoice value="person" scopes={scopes} words="What was last changed by" />
          <select
            aria-label="Whose changes"
            className="h-7 rounded-md border border-edge bg-raised px-2"
            value={person}
            onChange={(event) => {
              setPerson(event.target.value);
              setScope('person');
            }}
          >
            {[...people].map(([name, count]) => (
              <option key={name} value={name}>
                {name} ({count})
              </option>
            ))}
          </select>
        </div>
      )}
      <ScopeChoice value="all" scopes={scopes} words="Everything that waits" />
      <ScopeChoice value="picked" scopes={scopes} words="What is ticked in the tree" />
      {settings.length > 0 && (
        <label className="inline-flex items-center gap-2">
          <input
            type="radio"
            name="scope"
            className="accent-accent"
            checked={scope === 'none'}
            onChange={() => setScope('none')}
          />
          Site settings only
        </label>
      )}
    </fieldset>
  );
}

function ScopeChoice({
  value,
  scopes: { scope, setScope, pagesOf },
  words,
}: {
  readonly value: Scope;
  readonly scopes: Scopes;
  readonly words: string;
}) {
  const count = pagesOf[value].length;
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
      {words}{' '}
      {value !== 'person' && <span className="text-quiet">({count === 0 ? 'nothing differs' : pages(count)})</span>}
    </label>
  );
}

/** Which parts of the settings go along, and which have to. */
export function SettingsScope({
  all,
  chosen,
  along,
  onChoose,
}: {
  readonly all: readonly SettingsPart[];
  readonly chosen: readonly SettingsPart[];
  readonly along: readonly PartAlong[];
  readonly onChoose: (chosen: readonly SettingsPart[]) => void;
}) {
  const { site } = useWorkbench();
  return (
    <fieldset>
      <legend className="mb-1 text-small font-medium">Site settings that differ</legend>
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {all.map((part) => {
          const why = along.find((one) => one.part === part);
          return (
            <label key={part} className="inline-flex items-center gap-2">
              <input
                type="checkbox"
                className="size-4 accent-accent"
                checked={chosen.includes(part) || why !== undefined}
                disabled={why !== undefined}
                onChange={() =>
                  onChoose(chosen.includes(part) ? chosen.filter((one) => one !== part) : [...chosen, part])
                }
              />
              {capital(SETTINGS_WORDS[part])}
            </label>
          );
        })}
      </div>
      {along.map(({ part, of }) => (
        <p key={part} className="mt-1 text-small text-attention">
          The {SETTINGS_WORDS[part]} come along:{' '}
          {'page' in of
            ? part === 'menus'
              ? `they name ‘${titleIn(site, of.page)}’, which goes live`
              : `‘${titleIn(site, of.page)}’ names something new in them`
            : `the ${SETTINGS_WORDS[of.part]} name something new in them`}
          .
        </p>
      ))}
    </fieldset>
  );
}
