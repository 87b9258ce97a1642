import { UserRoundPen } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Colleague } from '#contract/people.ts';
import { useColleagues } from '../../../api/people.ts';
import { ListOfSettings, ListedItem } from '../../../settings/listed-item.tsx';
import type { AskedKind, Named } from '../../../settings/settings-kind.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { NewColleague } from './new-colleague.tsx';
import { OneColleague } from './one-colleague.tsx';
import { rolesWords } from './role-words.ts';

/** Who works on the site, and what each of them may do where. */
export const COLLEAGUES: AskedKind = {
  edits: 'people',
  isForBranches: true,
  title: 'Colleagues',
  one: 'colleague',
  Sign: UserRoundPen,
  description:
    'Who works on this site. A role holds for the whole site or for a branch; where a page is in several branches, the nearest role holds. Changes take effect at once.',
  useItems: useNamed,
  List: Colleagues,
  One: OneColleague,
};

function useNamed(): readonly (Colleague & Named)[] | undefined {
  const { site } = useWorkbench();
  return useColleagues(site.key)?.colleagues;
}

function Colleagues() {
  const { site, mayEdit, may, setBeside } = useWorkbench();
  const answer = useColleagues(site.key);
  const [isNew, setNew] = useState(false);
  const open = useMemo(
    () => (id: string) => {
      setNew(false);
      setBeside({ kind: 'colleagues', id });
    },
    [setBeside],
  );
  if (!answer) return <p className="text-quiet">Loading …</p>;
  const { colleagues, roles, lookAfterAll } = answer;
  return (
    <div className="flex flex-col gap-3">
      {mayEdit && (
        <Button
          look={colleagues.length === 0 ? 'main' : 'plain'}
          className="self-start"
          onClick={() => setNew(!isNew)}
          aria-expanded={isNew}
        >
          Invite a colleague…
        </Button>
      )}
      {isNew && <NewColleague roles={roles} onMade={open} />}
      {colleagues.length === 0 ? (
        <p className="text-quiet">Nobody has a role on this site yet.</p>
      ) : (
        <ListOfSettings label="Colleagues">
          {colleagues.map((one) => (
            <ListedItem
              key={one.id}
              to={{ kind: 'colleagues', id: one.id }}
              sign={<UserRoundPen size={16} aria-hidden />}
              name={<span className={one.state === 'suspended' ? 'text-quiet line-through' : ''}>{one.name}</span>}
              says={[rolesWords(site, roles, one.roles), one.placesFromDirectory && 'from the directory']
                .filter(Boolean)
                .join(' · ')}
              waits={
                one.state === 'invited'
                  ? 'Invited, not here yet'
                  : one.state === 'suspended'
                    ? 'Suspended: cannot open this site'
                    : false
              }
            />
          ))}
        </ListOfSettings>
      )}
      {lookAfterAll.length > 0 && (
        <p className="text-small text-quiet">
          {lookAfterAll.join(', ')} {lookAfterAll.length === 1 ? 'looks' : 'look'} after this installation of Spur, and
          may do everything on every site.
        </p>
      )}
      <p className="flex flex-wrap gap-x-4 gap-y-1 text-small">
        <button
          type="button"
          className="text-accent hover:underline"
          onClick={() => setBeside({ kind: 'roles', id: null })}
        >
          What each role may do
        </button>
        {may('people', null) && (
          <>
            <button
              type="button"
              className="text-accent hover:underline"
              onClick={() => setBeside({ kind: 'colleague-directory', id: null })}
            >
              From the organisation’s directory
            </button>
            <button
              type="button"
              className="text-accent hover:underline"
              onClick={() => setBeside({ kind: 'security', id: null })}
            >
              Security: second step and log
            </button>
          </>
        )}
      </p>
    </div>
  );
}
