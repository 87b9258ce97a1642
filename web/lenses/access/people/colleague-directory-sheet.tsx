import { Building2, ChevronDown, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { GroupRole } from '#core/people/colleague-sync.ts';
import type { RoleAt } from '#core/people/powers.ts';
import { READER, type Role, type RoleId } from '#core/people/role.ts';
import type { ColleagueDirectoryAnswer } from '#contract/directory.ts';
import { setColleagueDirectory, syncColleagues, useColleagueDirectory } from '../../../api/directory.ts';
import { useColleagues } from '../../../api/people.ts';
import { PageField } from '../../../fields/page-field.tsx';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { DirectoryFrame } from '../directory/directory-frame.tsx';
import { BranchRole, RoleChoice } from './role-choice.tsx';
import { rolesWords } from './role-words.ts';

/** Which groups of the organisation's directory work on the site, and as what. */
export const COLLEAGUE_DIRECTORY: WholeKind = {
  edits: 'people',
  needs: 'people',
  title: 'Colleagues from the directory',
  Sign: Building2,
  description: 'Which groups of the organisation work on this site, with which roles, and keeping colleagues in step.',
  Whole: ColleagueDirectory,
};

function ColleagueDirectory() {
  const { site } = useWorkbench();
  const directory = useColleagueDirectory(site.key);
  const roles = useColleagues(site.key)?.roles;
  if (!roles) return <p className="text-quiet">Loading …</p>;
  const set = (change: Partial<Pick<ColleagueDirectoryAnswer, 'groupRoles' | 'isNightly'>>) => {
    const { groupRoles, isNightly } = { ...directory!, ...change };
    return setColleagueDirectory(site.key, { groupRoles, isNightly });
  };
  const words = (rolesAt: readonly RoleAt[]) => rolesWords(site, roles, rolesAt);
  return (
    <DirectoryFrame
      directory={directory}
      about="Everyone in a group with a role is a colleague and has that role. Who is new is invited by mail; who leaves the organisation is suspended. A role that you give by hand stays, and holds where a group would give another one."
      one="colleague"
      many="colleagues"
      setNightly={(isNightly) => set({ isNightly })}
      sync={async (apply) =>
        (await syncColleagues(site.key, apply)).items.map(({ kind, name, email, gains, loses, isTakenOver }) => ({
          kind,
          name,
          email,
          says: [
            ...(gains.length > 0 ? [`becomes ${words(gains)}`] : []),
            ...(loses.length > 0 ? [`is no longer ${words(loses)}`] : []),
            ...(isTakenOver && kind === 'changed' ? ['the directory looks after them from now on'] : []),
            ...(kind === 'suspended' ? ['has left the organisation or its groups'] : []),
            ...(kind === 'restored' && gains.length + loses.length === 0 ? ['with the roles as before'] : []),
          ],
        }))
      }
    >
      {({ isBusy, during }) => (
        <fieldset disabled={isBusy} className="min-w-0">
          <ul aria-label="Groups of the directory" className="divide-y divide-rule border-y border-rule">
            {groupsToShow(directory!).map((group) => (
              <Group
                key={group.id}
                group={group}
                roles={roles}
                rolesAt={directory!.groupRoles.filter((one) => one.group === group.id)}
                onSet={(rolesAt) =>
                  void during(() =>
                    set({
                      groupRoles: [
                        ...directory!.groupRoles.filter((one) => one.group !== group.id),
                        ...rolesAt.map((one): GroupRole => ({ ...one, group: group.id })),
                      ],
                    }),
                  )
                }
              />
            ))}
          </ul>
        </fieldset>
      )}
    </DirectoryFrame>
  );
}

interface ShownGroup {
  readonly id: string;
  readonly name: string;
  /** Null for one that the directory has no more. */
  readonly members: number | null;
}

/** The groups of the directory, and those that it has no more and that still give a role. */
function groupsToShow({ groups, groupRoles }: ColleagueDirectoryAnswer): readonly ShownGroup[] {
  const known = new Set(groups.map(({ id }) => id));
  const gone = [...new Set(groupRoles.map(({ group }) => group))].filter((id) => !known.has(id));
  return [...groups, ...gone.map((id) => ({ id, name: id, members: null }))];
}

/** One group: what it gives, as a line, and the choice once it is opened. */
function Group({
  group: { name, members },
  roles,
  rolesAt,
  onSet,
}: {
  readonly group: ShownGroup;
  readonly roles: readonly Role[];
  readonly rolesAt: readonly GroupRole[];
  readonly onSet: (rolesAt: readonly RoleAt[]) => void;
}) {
  const { site, may } = useWorkbench();
  const [isOpen, setOpen] = useState(false);
  const own: readonly RoleAt[] = rolesAt.map(({ page, role }) => ({ page, role }));
  const at = (page: PageId | null) => own.find((one) => one.page === page)?.role ?? null;
  const setAt = (page: PageId | null, role: RoleId | null) =>
    onSet([...own.filter((one) => one.page !== page), ...(role === null ? [] : [{ page, role }])]);
  const branches = own.flatMap(({ page, role }) => (page === null ? [] : [{ page, role }]));
  const Turn = isOpen ? ChevronDown : ChevronRight;
  return (
    <li className="py-1.5">
      <button
        type="button"
        aria-expanded={isOpen}
        onClick={() => setOpen(!isOpen)}
        className="flex w-full items-start gap-2 rounded-sm text-left hover:bg-hover"
      >
        <Turn size={16} aria-hidden className="mt-0.5 shrink-0 text-quiet" />
        <span className="min-w-0 flex-1">
          {name}{' '}
          <span className="text-small text-quiet">
            {members === null ? 'no longer in the directory' : members === 1 ? '1 person' : `${members} people`}
          </span>
          <span className={`block text-small ${own.length === 0 ? 'text-quiet' : ''}`}>
            {own.length === 0 ? 'No role' : rolesWords(site, roles, own)}
          </span>
        </span>
      </button>
      {isOpen && (
        <div role="group" aria-label={`Roles of ${name}`} className="flex flex-col gap-3 pt-2 pb-1 pl-6">
          <RoleChoice
            label="Role on the whole site"
            roles={roles}
            page={null}
            value={at(null)}
            withNone
            onChoose={(role) => setAt(null, role)}
          />
          {branches.map(({ page, role }) => (
            <BranchRole key={page} roles={roles} page={page} value={role} onChoose={(next) => setAt(page, next)} />
          ))}
          <PageField
            label="Give a role in a branch"
            value=""
            placeholder="Choose the page at its top"
            isOffered={(_, page) => at(page) === null && may('people', page)}
            onChoose={(page) => setAt(page as PageId, READER.id)}
          />
        </div>
      )}
    </li>
  );
}
