import { format, parseISO } from 'date-fns';
import { accessReason } from '#core/derive/access.ts';
import { reasonWords } from '#core/derive/reason-words.ts';
import { type AccessChange, type ClosedLook, type HeldBack, audiencesIn, ruleOf } from '#core/model/access.ts';
import { type AudienceId, EVERYONE, closureOf } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { GateSign } from '../../tree/access-columns.tsx';
import { ANSWER_LOOKS, ANSWER_WORDS, accessOf, answerAt, audiencesOf } from '../../tree/access-of.ts';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Choice, TextField, Tick } from '../../ui/field.tsx';
import { useNow } from '../../ui/use-now.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageHead } from '../page-head.tsx';

/** The Access lens: who can open the page, why, and the rule of its own. */
export function AccessPanel({ page }: { readonly page: PageId | null }) {
  const { mayEdit } = useWorkbench();
  if (page === null) return <p className="text-quiet">Select a page in the tree, and who can open it stands here.</p>;
  return (
    <fieldset disabled={!mayEdit} className="contents">
      <div className="flex flex-col gap-4">
        <PageHead page={page} />
        <Answers page={page} />
        <OwnRule page={page} />
        <RulesBelow page={page} />
      </div>
    </fieldset>
  );
}

/** Each audience with what it gets of the page, and the rule that decided it. */
function Answers({ page }: { readonly page: PageId }) {
  const { site, derived } = useWorkbench();
  const row = derived.outline.rowOf.get(page)!;
  const { table } = accessOf(site);
  const now = useNow();
  return (
    <section aria-label="Who can open it">
      <h3 className="mb-1 font-display text-large font-semibold">Who can open it</h3>
      <ul className="divide-y divide-rule border-y border-rule">
        {audiencesOf(site).map(({ id, name }, bit) => {
          const answer = answerAt(table, row, bit);
          const reason = accessReason(site, page, closureOf(site.settings.audiences, [id]), now);
          return (
            <li key={id} className="py-1.5">
              <p className="flex items-baseline gap-2">
                <span className="min-w-0 flex-1 truncate font-medium">{name}</span>
                <span className={ANSWER_LOOKS[answer]}>{ANSWER_WORDS[answer]}</span>
              </p>
              <p className="text-small text-quiet">{reasonWords(site, page, reason, momentWords)}</p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const momentWords = (moment: string): string => format(parseISO(moment), 'd MMM yyyy, HH:mm');

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
      <Choice
        label="Search engines"
        value={rule.engines}
        onChange={(event) => set({ engines: event.target.value as HeldBack })}
      >
        <option value="no">Offer it, if everyone can open it</option>
        <option value="page">Hold this page back</option>
        <option value="branch">Hold the branch back</option>
      </Choice>
    </section>
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
