import { Eye, Mail, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { handedOver, rulesNaming } from '#core/approval/rule.ts';
import type { PageId } from '#core/model/ids.ts';
import { planOf } from '#core/model/plan.ts';
import { isInHands } from '#core/talk/in-hands.ts';
import { mayGive } from '#core/people/forbidden.ts';
import { type RoleAt, powersOf, powersTable } from '#core/people/powers.ts';
import type { Role, RoleId } from '#core/people/role.ts';
import type { Colleague } from '#contract/people.ts';
import { setApprovalRule, useApproval } from '../../../api/approval.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { inviteAgain, removeColleague, setColleague, useColleagues } from '../../../api/people.ts';
import { handOverTalk, useOpenThreads } from '../../../api/talk.ts';
import { useSession } from '../../../api/session.ts';
import { PageField } from '../../../fields/page-field.tsx';
import { MarkedRows } from '../../../settings/marked-rows.tsx';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { dayWords } from '../../../tree/plan-words.tsx';
import { listOf, pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/field.tsx';
import { type Marks, useWorkbench } from '../../../workbench/workbench-context.tsx';
import { BranchRole, RoleChoice } from './role-choice.tsx';
import { branchName, heldWords } from './role-words.ts';
import { toast } from '../../../ui/toast.ts';

const tell = (fault: unknown) => void toast.error(wordsOfFault(fault));

/** One colleague: the roles, which the tree shows row by row, and what can be done. */
export function OneColleague({ id, onGone }: { readonly id: string; readonly onGone: () => void }) {
  const { site } = useWorkbench();
  const answer = useColleagues(site.key);
  const colleague = answer?.colleagues.find((one) => one.id === id);
  return answer && colleague ? (
    <Opened colleague={colleague} colleagues={answer.colleagues} roles={answer.roles} onGone={onGone} />
  ) : null;
}

function Opened({
  colleague,
  colleagues,
  roles,
  onGone,
}: {
  readonly colleague: Colleague;
  readonly colleagues: readonly Colleague[];
  readonly roles: readonly Role[];
  readonly onGone: () => void;
}) {
  const { site, store, shown, powers, mayEdit } = useWorkbench();
  const own = useSession()?.account?.id;
  const [isAsked, setAsked] = useState(false);
  const { id, name, email, state, lastSeen, roles: rolesAt } = colleague;
  const isOwn = id === own;
  // What somebody gives, they must hold themselves; the server decides the same.
  const mayChange =
    mayEdit &&
    !isOwn &&
    rolesAt.every(({ page, role }) => {
      const known = roles.find((one) => one.id === role);
      return known === undefined || mayGive(site, powers, known, page);
    });
  return (
    <div className="flex flex-col gap-4">
      <WhereTheyWork colleague={colleague} roles={roles} />
      <p>
        {email}
        <span className="block text-small text-quiet">
          {state === 'invited'
            ? 'Has not taken up the invitation yet.'
            : state === 'suspended'
              ? 'Suspended: cannot open this site. What they did stays under their name.'
              : lastSeen !== null
                ? `Last signed in on ${dayWords(lastSeen)}.`
                : ''}
        </span>
      </p>
      {isOwn && (
        <p className="rounded-sm bg-sunken px-2 py-1 text-small text-quiet">Your own roles are changed by others.</p>
      )}
      <FromDirectory colleague={colleague} />
      <fieldset disabled={!mayChange} className="flex min-w-0 flex-col gap-3">
        <Roles colleague={colleague} roles={roles} />
      </fieldset>
      <InTheirHands colleague={colleague} colleagues={colleagues} />
      <div className="flex flex-wrap items-center gap-2 border-t border-rule pt-3">
        {shown.seenAs === null && (
          <Button onClick={() => store.seeAs({ name, powers: powersOf(roles, rolesAt) })}>
            <Eye size={15} aria-hidden /> See the workbench as {name}
          </Button>
        )}
        {mayChange && (
          <>
            {state === 'invited' && (
              <Button
                onClick={() =>
                  void inviteAgain(site.key, id).then(() => toast(`A new invitation went to ${email}.`), tell)
                }
              >
                <Mail size={15} aria-hidden /> Invite again
              </Button>
            )}
            <Button onClick={() => void setColleague(site.key, id, { isSuspended: state !== 'suspended' }).catch(tell)}>
              {state === 'suspended' ? 'Restore access' : 'Suspend'}
            </Button>
            {isAsked ? (
              <Button look="danger" onClick={() => void removeColleague(site.key, id).then(onGone, tell)}>
                Remove {name}
              </Button>
            ) : (
              <Button look="quiet" onClick={() => setAsked(true)}>
                <Trash2 size={15} aria-hidden /> Remove…
              </Button>
            )}
          </>
        )}
      </div>
    </div>
  );
}

/** What of somebody's roles comes from the organisation's directory, and what follows from it. */
function FromDirectory({ colleague: { placesFromDirectory } }: { readonly colleague: Colleague }) {
  const { site } = useWorkbench();
  if (placesFromDirectory === null) return null;
  const places = placesFromDirectory.map((page) => (page === null ? 'the whole site' : branchName(site, page)));
  return (
    <p className="rounded-sm bg-sunken px-2 py-1 text-small text-quiet">
      From the organisation’s directory
      {places.length === 0 ? '.' : `: the role for ${listOf(places)}. Another one chosen here holds in its place.`}
    </p>
  );
}

/** Marks each row with the role that holds there and why; what holds on the whole site stands back. */
function WhereTheyWork({ colleague, roles }: { readonly colleague: Colleague; readonly roles: readonly Role[] }) {
  const { site, derived } = useWorkbench();
  const { name, roles: rolesAt } = colleague;
  const { outline } = derived;
  const marks = useMemo<Marks>(() => {
    const powers = powersOf(roles, rolesAt);
    const { through } = powersTable(outline, powers, site.practice);
    const words = new Map<PageId, string>();
    const faint = new Set<PageId>();
    for (const [row, { id }] of outline.nodes.entries()) {
      const by = through[row]! === -1 ? null : outline.nodes[through[row]!]!.id;
      const held = by === null ? powers.onSite : powers.onBranches.get(by)!;
      words.set(id, held ? heldWords(site, held, by, id) : 'No role');
      if (by === null) faint.add(id);
    }
    return { name, words, isFaint: (page) => faint.has(page) };
  }, [roles, rolesAt, outline, name, site]);
  useMarkRows(marks);
  const inBranches = [...marks.words.keys()].filter((page) => !marks.isFaint!(page)).length;
  if (inBranches === 0) return null;
  return (
    <MarkedRows count={inBranches}>
      {pages(inBranches)} in branches with a role of {name}’s own.
    </MarkedRows>
  );
}

function Roles({ colleague, roles }: { readonly colleague: Colleague; readonly roles: readonly Role[] }) {
  const { site, may, chosen } = useWorkbench();
  const { id, roles: rolesAt } = colleague;
  const onSite = rolesAt.find(({ page }) => page === null)?.role ?? null;
  const inBranches = rolesAt.filter((one): one is RoleAt & { page: PageId } => one.page !== null);
  const save = (next: readonly RoleAt[]) => {
    if (next.length === 0) toast('A colleague has at least one role. Remove them instead.');
    else void setColleague(site.key, id, { roles: [...next] }).catch(tell);
  };
  const setOnSite = (role: RoleId | null) => save([...(role === null ? [] : [{ page: null, role }]), ...inBranches]);
  const setAt = (page: PageId, role: RoleId | null) =>
    save([...rolesAt.filter((one) => one.page !== page), ...(role === null ? [] : [{ page, role }])]);
  const isTaken = new Set<PageId>(inBranches.map(({ page }) => page));
  const offered = chosen.find((page) => !isTaken.has(page) && may('people', page));
  const writer = roles[1]!.id;
  return (
    <>
      <RoleChoice
        label="Role on the whole site"
        roles={roles}
        page={null}
        value={onSite}
        withNone
        onChoose={setOnSite}
      />
      {inBranches.map(({ page, role }) => (
        <BranchRole key={page} roles={roles} page={page} value={role} onChoose={(next) => setAt(page, next)} />
      ))}
      <PageField
        label="Give a role in another branch"
        value=""
        placeholder="Choose the page at its top"
        isOffered={(_, page) => !isTaken.has(page) && may('people', page)}
        onChoose={(page) => setAt(page as PageId, writer)}
      />
      {offered !== undefined && (
        <button
          type="button"
          className="self-start text-left text-accent hover:underline disabled:no-underline disabled:opacity-45"
          onClick={() => setAt(offered, writer)}
        >
          Give a role in {branchName(site, offered)}, which is selected
        </button>
      )}
    </>
  );
}

/** What is in somebody's hands: pages that they own, branches where they decide what goes live, open conversations; and handing it over. */
function InTheirHands({
  colleague,
  colleagues,
}: {
  readonly colleague: Colleague;
  readonly colleagues: readonly Colleague[];
}) {
  const { site, store, derived, may } = useWorkbench();
  const { id, name } = colleague;
  const owned = useMemo(
    () => derived.outline.nodes.filter((node) => planOf(node).owner === name).map(({ id }) => id),
    [derived.outline, name],
  );
  const approval = useApproval(site.key);
  const rules = useMemo(() => rulesNaming(approval?.rules ?? [], id), [approval, id]);
  const open = useOpenThreads(site.key);
  const asked = useMemo(
    () =>
      (open?.threads ?? []).filter(({ comments, handed }) =>
        isInHands(
          {
            isBegunByThem: comments[0]!.by === name,
            isHandedToThem: handed.some(({ to }) => to === name),
            isHandedByThem: handed.some(({ by }) => by === name),
            texts: comments.map(({ text }) => text),
          },
          id,
          colleagues,
        ),
      ),
    [open, id, name, colleagues],
  );
  if (owned.length === 0 && rules.length === 0 && asked.length === 0) return null;
  const mayHandOver =
    owned.every((page) => may('plan', page)) &&
    rules.every(({ page }) => may('everything', page)) &&
    (asked.length === 0 || may('people', null));
  const handOver = async (to: Colleague) => {
    const { name: owner } = to;
    const refusal =
      owned.length > 0 && store.apply(owned.map((page) => ({ name: 'page.set', page, fields: { plan: { owner } } })));
    if (refusal) return;
    for (const { page, by, count } of rules.map((rule) => handedOver(rule, id, to.id)))
      if ('people' in by) await setApprovalRule(site.key, { page, by: { people: [...by.people] }, count });
    const { left } = asked.length > 0 ? await handOverTalk(site.key, id, to.id) : { left: 0 };
    toast(
      left === 0
        ? `Handed over to ${owner}.`
        : `Handed over to ${owner}, but for ${left === 1 ? 'a conversation' : `${left} conversations`} on pages that ${owner} may not read.`,
    );
  };
  return (
    <section aria-label="In their hands" className="flex flex-col gap-2 border-t border-rule pt-3">
      {owned.length > 0 && (
        <p>
          <ShowRows pages={owned}>Owner of {pages(owned.length)}</ShowRows>
        </p>
      )}
      {rules.length > 0 && (
        <p>
          Decides what goes live{' '}
          {listOf(rules.map(({ page }) => (page === null ? 'on the whole site' : `in ${branchName(site, page)}`)))}
        </p>
      )}
      {asked.length > 0 && (
        <p>
          <ShowRows pages={[...new Set(asked.map(({ page }) => page))]}>
            Asked, or is asked, in {asked.length === 1 ? 'an open conversation' : `${asked.length} open conversations`}
          </ShowRows>
        </p>
      )}
      {mayHandOver && (
        <Choice
          label="Hand it over to"
          value=""
          onChange={(event) => {
            const to = colleagues.find((one) => one.id === event.target.value);
            if (to) void handOver(to).catch(tell);
          }}
        >
          <option value="">Choose a colleague</option>
          {colleagues
            .filter((one) => one.id !== id && one.state !== 'suspended')
            .map((one) => (
              <option key={one.id} value={one.id}>
                {one.name}
              </option>
            ))}
        </Choice>
      )}
    </section>
  );
}
