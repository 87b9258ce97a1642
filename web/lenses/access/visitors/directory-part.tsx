import type { AudienceId } from '#core/model/audience.ts';
import type { DirectoryAnswer } from '#contract/directory.ts';
import { setDirectory, syncDirectory, useDirectory } from '../../../api/directory.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { DirectoryFrame } from '../directory/directory-frame.tsx';

/** The organisation's directory: which of its groups give an audience, and keeping the accounts in step with it. */
export function DirectoryPart() {
  const { site } = useWorkbench();
  const directory = useDirectory(site.key);
  const set = (change: Partial<Pick<DirectoryAnswer, 'groupAudiences' | 'isNightly'>>) => {
    const { groupAudiences, isNightly } = { ...directory!, ...change };
    return setDirectory(site.key, { groupAudiences, isNightly });
  };
  const names = (ids: readonly AudienceId[]) =>
    ids.map((id) => site.settings.audiences.find((one) => one.id === id)?.name ?? 'an unknown audience').join(', ');
  return (
    <DirectoryFrame
      directory={directory}
      about="Everyone in one of these groups has an account and belongs to its audience. Audiences that you add by hand stay; whoever leaves the directory is suspended."
      one="account"
      many="accounts"
      setNightly={(isNightly) => set({ isNightly })}
      sync={async (apply) =>
        (await syncDirectory(site.key, apply)).items.map(({ kind, name, email, gains, loses, isTakenOver }) => ({
          kind,
          name,
          email,
          says: [
            ...(gains.length > 0 ? [`joins ${names(gains)}`] : []),
            ...(loses.length > 0 ? [`leaves ${names(loses)}`] : []),
            ...(isTakenOver ? ['the account will be managed by the directory'] : []),
            ...(gains.length + loses.length === 0 && !isTakenOver ? ['another name or address'] : []),
          ],
        }))
      }
    >
      {({ isBusy, during }) => (
        <Groups
          directory={directory!}
          isBusy={isBusy}
          onSet={(groupAudiences) => void during(() => set({ groupAudiences }))}
        />
      )}
    </DirectoryFrame>
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
