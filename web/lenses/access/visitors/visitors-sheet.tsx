import { UserRound } from 'lucide-react';
import { Tabs } from 'radix-ui';
import { type ReactNode, useMemo, useState } from 'react';
import type { VisitorAnswer } from '#contract/visitors.ts';
import { audienceNames } from '#core/derive/reason-words.ts';
import type { AskedKind, Named } from '../../../settings/settings-kind.ts';
import { ListOfSettings, ListedItem } from '../../../settings/listed-item.tsx';
import { useVisitors } from '../../../api/visitors.ts';
import { Button } from '../../../ui/button.tsx';
import { TextField } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { BringVisitors } from './bring-visitors.tsx';
import { DirectoryPart } from './directory-part.tsx';
import { JoiningLinks } from './joining-links.tsx';
import { NewVisitor } from './new-visitor.tsx';
import { OneVisitor } from './one-visitor.tsx';

const PARTS: readonly { readonly key: string; readonly words: string; readonly part: ReactNode }[] = [
  { key: 'accounts', words: 'Accounts', part: <Accounts /> },
  { key: 'links', words: 'Joining links', part: <JoiningLinks /> },
  { key: 'directory', words: 'Directory', part: <DirectoryPart /> },
  { key: 'list', words: 'Import a list', part: <BringVisitors /> },
];

/** The site's visitors: who has an account, how others join, and a list that is brought. */
export const VISITORS: AskedKind = {
  edits: 'people',
  title: 'Visitors',
  one: 'visitor',
  Sign: UserRound,
  description: 'Accounts of the site’s visitors; they give no access to this workbench. Changes take effect at once.',
  needs: 'people',
  useItems: useAccounts,
  List: Visitors,
  One: OneVisitor,
};

function Visitors() {
  return (
    <Tabs.Root defaultValue="accounts" className="flex flex-col gap-4">
      <Tabs.List aria-label="Visitors" className="flex gap-5 border-b border-rule">
        {PARTS.map(({ key, words }) => (
          <Tabs.Trigger
            key={key}
            value={key}
            className="-mb-px border-b-2 border-transparent py-1.5 text-quiet hover:text-ink data-[state=active]:border-accent data-[state=active]:font-medium data-[state=active]:text-ink"
          >
            {words}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {PARTS.map(({ key, part }) => (
        <Tabs.Content key={key} value={key}>
          {part}
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}

/** Those who wait to be let in stand first. */
function useAccounts(): readonly (VisitorAnswer & Named)[] | undefined {
  const { site } = useWorkbench();
  const visitors = useVisitors(site.key);
  return useMemo(
    () => visitors?.toSorted((a, b) => Number(b.askedFor.length > 0) - Number(a.askedFor.length > 0)),
    [visitors],
  );
}

function Accounts() {
  const { site } = useWorkbench();
  const visitors = useAccounts();
  const [asked, setAsked] = useState('');
  const [isNew, setNew] = useState(false);
  const wanted = asked.trim().toLowerCase();
  const shown = (visitors ?? []).filter(({ name, email }) => `${name} ${email}`.toLowerCase().includes(wanted));
  return (
    <div className="flex flex-col gap-3">
      <div className="flex items-end gap-2">
        <div className="flex-1">
          <TextField
            label="Find by name or mail address"
            value={asked}
            onChange={(event) => setAsked(event.target.value)}
          />
        </div>
        <Button look="main" onClick={() => setNew(!isNew)} aria-expanded={isNew}>
          New visitor…
        </Button>
      </div>
      {isNew && <NewVisitor onMade={() => setNew(false)} />}
      {visitors === undefined ? (
        <p className="text-quiet">Loading …</p>
      ) : shown.length === 0 ? (
        <p className="text-quiet">
          {visitors.length === 0 ? 'Nobody has an account yet.' : 'No name or address matches.'}
        </p>
      ) : (
        <ListOfSettings label="Visitors">
          {shown.map(({ id, name, email, audiences, askedFor, isSuspended, isFromDirectory }) => (
            <ListedItem
              key={id}
              to={{ kind: 'visitors', id }}
              sign={<UserRound size={16} aria-hidden />}
              name={<span className={isSuspended ? 'text-quiet line-through' : ''}>{name}</span>}
              says={[
                email,
                isSuspended ? 'suspended' : audienceNames(site, audiences),
                isFromDirectory && 'from the directory',
              ]
                .filter(Boolean)
                .join(' · ')}
              waits={askedFor.length > 0 && `Wants to join ${audienceNames(site, askedFor)}`}
            />
          ))}
        </ListOfSettings>
      )}
    </div>
  );
}
