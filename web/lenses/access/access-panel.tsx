import { format, parseISO } from 'date-fns';
import {
  type AccessChange,
  type ClosedLook,
  type HeldBack,
  type MenuFor,
  type StandsIn,
  audiencesIn,
  ruleOf,
} from '#core/model/access.ts';
import { type AudienceId, EVERYONE } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { GateSign } from '../../tree/access-columns.tsx';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Choice, TextField, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageHead } from '../page-head.tsx';
import { PageAnswers } from './page-answers.tsx';

/** The Access lens: who can open the page, why, and the rule of its own. */
export function AccessPanel({ page }: { readonly page: PageId | null }) {
  const { mayEdit } = useWorkbench();
  if (page === null) return <p className="text-quiet">Select a page in the tree, and who can open it stands here.</p>;
  return (
    <fieldset disabled={!mayEdit} className="contents">
      <div className="flex flex-col gap-4">
        <PageHead page={page} />
        <PageAnswers page={page} />
        <OwnRule page={page} />
        <RulesBelow page={page} />
      </div>
    </fieldset>
  );
}

function OwnRule({ page }: { readonly page: PageId }) {
  const { site, store } = useWorkbench();
  const rule = ruleOf(nodeAt(site, page));
  const { audiences } = site.settings;
  const set = (access: AccessChange) => store.apply([{ name: 'page.set', page, fields: { access } }]);
  const toggled = (ids: readonly AudienceId[], id: AudienceId) =>
    ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id];
  return (
    <section aria-label="Its own rule" className="flex flex-col gap-3 border-t border-rule pt-4">
      <h3 className="flex items-center gap-2 font-display text-large font-semibold">
        {audiencesIn(rule).length > 0 && <GateSign />} Its own rule
      </h3>
      {audiences.length === 0 ? (
        <p className="text-quiet">The site has no audiences yet. Name one, and you can keep this page for it.</p>
      ) : (
        <fieldset className="flex flex-col gap-1">
          <legend className="mb-1 text-small font-medium">Open to only</legend>
          <Tick
            label="Whom the page above is open to"
            checked={rule.only === null}
            onChange={() => rule.only !== null && set({ only: null })}
          />
          {[...audiences, { id: EVERYONE, name: 'Everyone', includes: [] }].map(({ id, name }) =>
            id === EVERYONE ? null : (
              <Tick
                key={id}
                label={name}
                checked={rule.only?.includes(id) === true}
                onChange={() => {
                  const only = toggled(rule.only ?? [], id);
                  set({ only: only.length === 0 ? null : only });
                }}
              />
            ),
          )}
          <p className="mt-2 mb-1 text-small font-medium">But not to</p>
          {audiences.map(({ id, name }) => (
            <Tick
              key={id}
              label={name}
              aria-label={`Not to ${name}`}
              checked={rule.except.includes(id)}
              onChange={() => set({ except: toggled(rule.except, id) })}
            />
          ))}
        </fieldset>
      )}
      <Tick
        label="It stands alone"
        hint="It takes no narrowing from the pages above. A hidden branch hides it all the same."
        checked={rule.standsAlone}
        onChange={() => set({ standsAlone: !rule.standsAlone })}
      />
      <Choice
        label="Those who may not open it get"
        value={rule.closedLook ?? ''}
        onChange={(event) => set({ closedLook: event.target.value === '' ? null : (event.target.value as ClosedLook) })}
      >
        <option value="">As the page above has it</option>
        <option value="out-of-sight">Nothing: it is out of sight</option>
        <option value="locked">Its entry with a lock, and the sign-in page</option>
      </Choice>
      <div className="grid grid-cols-2 gap-3">
        <Moment label="Opens" value={rule.from} onSet={(from) => set({ from })} />
        <Moment label="Closes" value={rule.until} onSet={(until) => set({ until })} />
      </div>
      <HeldBackChoice
        label="Site search"
        offer="Find it, for those who can open it"
        value={rule.search}
        onSet={(search) => set({ search })}
      />
      <HeldBackChoice
        label="Search engines"
        offer="Offer it, if everyone can open it"
        value={rule.engines}
        onSet={(engines) => set({ engines })}
      />
      <Choice
        label="Visitors get it as"
        hint="The first of the tree that they can open stands in for what Spur has built in."
        value={rule.standsIn ?? ''}
        onChange={(event) => set({ standsIn: event.target.value === '' ? null : (event.target.value as StandsIn) })}
      >
        <option value="">An ordinary page</option>
        <option value="sign-in">The sign-in page</option>
        <option value="no-access">The page of those who may not open one</option>
        <option value="not-found">The not-found page</option>
        <option value="account">The account page, for signing out</option>
      </Choice>
      <Choice
        label="Menus show its entry to"
        value={rule.menuFor ?? ''}
        onChange={(event) => set({ menuFor: event.target.value === '' ? null : (event.target.value as MenuFor) })}
      >
        <option value="">All who may open it</option>
        <option value="signed-in">Visitors who are signed in</option>
        <option value="signed-out">Visitors who are not signed in</option>
      </Choice>
    </section>
  );
}

function HeldBackChoice({
  label,
  offer,
  value,
  onSet,
}: {
  readonly label: string;
  readonly offer: string;
  readonly value: HeldBack;
  readonly onSet: (value: HeldBack) => void;
}) {
  return (
    <Choice label={label} value={value} onChange={(event) => onSet(event.target.value as HeldBack)}>
      <option value="no">{offer}</option>
      <option value="page">Hold this page back</option>
      <option value="branch">Hold the branch back</option>
    </Choice>
  );
}

/** A moment by the clock of where the person is; kept in UTC. */
function Moment({
  label,
  value,
  onSet,
}: {
  readonly label: string;
  readonly value: string | null;
  readonly onSet: (value: string | null) => void;
}) {
  return (
    <TextField
      label={label}
      type="datetime-local"
      value={value === null ? '' : format(parseISO(value), "yyyy-MM-dd'T'HH:mm")}
      onChange={(event) => onSet(event.target.value === '' ? null : new Date(event.target.value).toISOString())}
    />
  );
}

/** Pages below that have rules of their own: they stay when this page is opened or closed, unless they are taken away. */
function RulesBelow({ page }: { readonly page: PageId }) {
  const { site, store, select } = useWorkbench();
  const below = branchOf(site, page)
    .slice(1)
    .filter((id) => {
      const { only, except, standsAlone } = ruleOf(nodeAt(site, id));
      return only !== null || except.length > 0 || standsAlone;
    });
  if (below.length === 0) return null;
  return (
    <section aria-label="Rules below" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 className="font-display text-large font-semibold">Rules below</h3>
      <p className="text-small text-quiet">
        {pages(below.length)} below {below.length === 1 ? 'has a rule' : 'have rules'} of{' '}
        {below.length === 1 ? 'its' : 'their'} own, which {below.length === 1 ? 'stays' : 'stay'} when you change this
        one.
      </p>
      <ul className="max-h-40 overflow-y-auto">
        {below.map((id) => (
          <li key={id}>
            <button
              type="button"
              className="text-left text-accent hover:underline"
              onClick={() => select({ active: id, chosen: new Set([id]), anchor: id })}
            >
              {textIn(nodeAt(site, id).title, site.settings.language)}
            </button>
          </li>
        ))}
      </ul>
      <div>
        <Button
          onClick={() =>
            store.apply(
              below.map((id) => ({
                name: 'page.set',
                page: id,
                fields: { access: { only: null, except: [], standsAlone: false } },
              })),
            )
          }
        >
          Take away {below.length === 1 ? 'this rule' : `these ${below.length} rules`}
        </Button>
      </div>
    </section>
  );
}
