import { type AccessChange, type MenuFor, type StandsIn, ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { isKind, kindAmong } from '#core/model/page-label.ts';
import { saysWho, withoutNarrowing } from '#core/model/narrowing.ts';
import { GateSign } from './access-columns.tsx';
import { pages } from '../../tree/words.ts';
import { labelWords } from '#core/derive/reason-words.ts';
import { Button } from '../../ui/button.tsx';
import { AudienceTicks } from '../../ui/audience-ticks.tsx';
import { Choice, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageColleagues } from './people/page-colleagues.tsx';
import { PageHead } from '../page-head.tsx';
import { PageAnswers } from './page-answers.tsx';
import { PassphraseField } from './passphrase-field.tsx';
import { ClosedLookChoice, HeldBackChoice, Moment } from './rule-fields.tsx';

/** The Access lens: who can open the page, why, and the rule of its own. */
export function AccessPanel({ page }: { readonly page: PageId | null }) {
  const { mayEdit } = useWorkbench();
  if (page === null) return <p className="text-quiet">Select a page in the tree to see who can open it.</p>;
  return (
    <div className="flex flex-col gap-4">
      <fieldset disabled={!mayEdit} className="contents">
        <PageHead page={page} />
        <PageAnswers page={page} />
        <OwnRule page={page} />
        <Labels page={page} />
        <RulesBelow page={page} />
      </fieldset>
      <PageColleagues page={page} />
    </div>
  );
}

function OwnRule({ page }: { readonly page: PageId }) {
  const { site, store } = useWorkbench();
  const rule = ruleOf(nodeAt(site, page));
  const { audiences } = site.settings;
  const set = (access: AccessChange) => store.apply([{ name: 'page.set', page, fields: { access } }]);
  return (
    <section aria-label="Its own rule" className="flex flex-col gap-3 border-t border-rule pt-4">
      <h3 className="flex items-center gap-2 font-display text-large font-semibold">
        {saysWho(rule, site.settings.labels) && <GateSign />} Its own rule
      </h3>
      {audiences.length === 0 ? (
        <p className="text-quiet">The site has no audiences yet. Add one to restrict this page to it.</p>
      ) : (
        <AudienceTicks
          audiences={audiences}
          all="Same as the page above"
          only={rule.only}
          except={rule.except}
          onSet={set}
        />
      )}
      <Tick
        label="It stands alone"
        hint="Rules of the pages above do not apply to it. A hidden branch still hides it."
        checked={rule.standsAlone}
        onChange={() => set({ standsAlone: !rule.standsAlone })}
      />
      <ClosedLookChoice
        value={rule.closedLook}
        hint={
          rule.passphrase !== null && rule.closedLook === null
            ? 'Unless a page above says otherwise, whoever the passphrase lets in sees its entry with a lock.'
            : undefined
        }
        onSet={(closedLook) => set({ closedLook })}
      />
      <PassphraseField page={page} />
      <div className="flex flex-col gap-3">
        <Moment label="Opens" value={rule.from} onSet={(from) => set({ from })} />
        <Moment label="Closes" value={rule.until} onSet={(until) => set({ until })} />
      </div>
      <HeldBackChoice finder="search" value={rule.search} onSet={(search) => set({ search })} />
      <HeldBackChoice finder="engines" value={rule.engines} onSet={(engines) => set({ engines })} />
      <Choice
        label="Visitors get it as"
        hint="The first such page in the tree that they can open replaces the built-in one."
        value={rule.standsIn ?? ''}
        onChange={(event) => set({ standsIn: event.target.value === '' ? null : (event.target.value as StandsIn) })}
      >
        <option value="">An ordinary page</option>
        <option value="sign-in">The sign-in page</option>
        <option value="no-access">The no-access page</option>
        <option value="not-found">The not-found page</option>
        <option value="account">The account page, for signing out</option>
      </Choice>
      <Choice
        label="Menus show its entry to"
        value={rule.menuFor ?? ''}
        onChange={(event) => set({ menuFor: event.target.value === '' ? null : (event.target.value as MenuFor) })}
      >
        <option value="">Everyone who may open it</option>
        <option value="signed-in">Visitors who are signed in</option>
        <option value="signed-out">Visitors who are not signed in</option>
      </Choice>
    </section>
  );
}

/** The labels that the page bears, each with its rule. */
function Labels({ page }: { readonly page: PageId }) {
  const { site, store, setBeside } = useWorkbench();
  const { labels } = site.settings;
  const borne = ruleOf(nodeAt(site, page)).labels;
  const kind = kindAmong(borne, labels);
  const plainLabels = labels.filter((one) => !isKind(one));
  return (
    <section aria-label="Labels and kind" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 className="font-display text-large font-semibold">Labels and kind</h3>
      {plainLabels.length === 0 && kind === null && (
        <p className="text-small text-quiet">
          A label applies one rule to every page that has it. A label can be a kind, such as Course; a page has one
          kind.
        </p>
      )}
      {kind && (
        <p>
          Its kind is ‘{kind.name}’. <span className="text-quiet">{labelWords(site, kind.rule)}</span>
        </p>
      )}
      {plainLabels.map(({ id, name, rule }) => (
        <Tick
          key={id}
          label={name}
          hint={labelWords(site, rule)}
          checked={borne.includes(id)}
          onChange={() =>
            store.apply([
              {
                name: 'page.set',
                page,
                fields: {
                  access: { labels: borne.includes(id) ? borne.filter((one) => one !== id) : [...borne, id] },
                },
              },
            ])
          }
        />
      ))}
      <div>
        <Button onClick={() => setBeside({ kind: 'labels', id: null })}>
          {labels.length === 0 ? 'Make a label' : 'Change labels and kinds'}
        </Button>
      </div>
    </section>
  );
}

/** Pages below that have rules of their own: they stay when this page is opened or closed, unless they are taken away. */
function RulesBelow({ page }: { readonly page: PageId }) {
  const { site, store, select } = useWorkbench();
  const below = branchOf(site, page)
    .slice(1)
    .filter((id) => saysWho(ruleOf(nodeAt(site, id)), site.settings.labels));
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
                fields: { access: withoutNarrowing(ruleOf(nodeAt(site, id)).labels, site.settings.labels) },
              })),
            )
          }
        >
          Remove {below.length === 1 ? 'this rule' : `these ${below.length} rules`}
        </Button>
      </div>
    </section>
  );
}
