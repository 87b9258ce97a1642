import { ShieldCheck } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { DecidedBy } from '#core/approval/rule.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Role, RoleId } from '#core/people/role.ts';
import type { ApprovalRuleAnswer } from '#contract/approval.ts';
import type { Colleague } from '#contract/people.ts';
import { removeApprovalRule, setApprovalRule, useApproval } from '../../../api/approval.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { useColleagues } from '../../../api/people.ts';
import { PageField } from '../../../fields/page-field.tsx';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice, Radios, TextField, Tick } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { type Marks, useWorkbench } from '../../../workbench/workbench-context.tsx';
import { decidersWords, placeWords } from './approval-words.ts';

/** Which branches need approval before they go live, by whom and by how many. */
export const APPROVAL: WholeKind = {
  title: 'Approval',
  Sign: ShieldCheck,
  description:
    'What goes live in a branch can need approval first. Where a page is in several such branches, the nearest one holds. What is changed after it was approved needs it again.',
  edits: 'everything',
  Whole: Rules,
};

const WHOLE_SITE = { value: 'site', words: 'The whole site' };

function Rules() {
  const { site, mayEdit } = useWorkbench();
  const answer = useApproval(site.key);
  const people = useColleagues(site.key);
  const [editing, setEditing] = useState<ApprovalRuleAnswer | 'new' | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  useMarkRows(useRuleMarks(answer?.rules ?? [], people));
  if (!answer || !people) return <p className="text-quiet">Loading …</p>;
  const remove = (page: PageId | null) =>
    void removeApprovalRule(site.key, { page }).then(
      () => setEditing(null),
      (problem: unknown) => setFault(wordsOfFault(problem)),
    );
  return (
    <div className="flex flex-col gap-3">
      {fault && <Notice>{fault}</Notice>}
      {answer.rules.length === 0 && <p>Nothing needs approval: whoever may publish makes pages live.</p>}
      <ul aria-label="Branches that need approval" className="flex flex-col gap-2">
        {answer.rules.map((rule) => (
          <li key={rule.page} className="rounded-md border border-rule bg-raised px-3 py-2">
            <p className="font-medium">{placeWords(site, rule.page)}</p>
            <p className="text-small text-quiet">Approved by {decidersWords(rule.by, rule.count, people)}</p>
            {mayEdit && (
              <p className="mt-1.5 flex gap-2">
                <Button isTight onClick={() => setEditing(rule)}>
                  Change
                </Button>
                <Button isTight look="quiet" onClick={() => remove(rule.page)}>
                  Ask for no approval here
                </Button>
              </p>
            )}
          </li>
        ))}
      </ul>
      {mayEdit && editing === null && (
        <Button
          className="self-start"
          look={answer.rules.length === 0 ? 'main' : 'plain'}
          onClick={() => setEditing('new')}
        >
          Ask for approval of a branch…
        </Button>
      )}
      {editing !== null && (
        <OneRule
          key={editing === 'new' ? 'new' : String(editing.page)}
          rule={editing === 'new' ? null : editing}
          roles={people.roles}
          colleagues={people.colleagues}
          onDone={() => setEditing(null)}
        />
      )}
    </div>
  );
}

function OneRule({
  rule,
  roles,
  colleagues,
  onDone,
}: {
  readonly rule: ApprovalRuleAnswer | null;
  readonly roles: readonly Role[];
  readonly colleagues: readonly Colleague[];
  readonly onDone: () => void;
}) {
  const { site, selection } = useWorkbench();
  const [page, setPage] = useState<PageId | null>(rule ? rule.page : selection.active);
  const [how, setHow] = useState<'role' | 'people'>(rule && 'people' in rule.by ? 'people' : 'role');
  const [role, setRole] = useState<RoleId>(
    rule && 'role' in rule.by ? rule.by.role : (roles.find(({ name }) => name === 'Publisher') ?? roles[0]!).id,
  );
  const [people, setPeople] = useState<readonly string[]>(rule && 'people' in rule.by ? rule.by.people : []);
  const [count, setCount] = useState(String(rule?.count ?? 1));
  const [fault, setFault] = useState<string | null>(null);
  const number = Number(count);
  const most = how === 'people' ? people.length : 20;
  const countFault =
    !Number.isInteger(number) || number < 1
      ? 'At least one.'
      : number > most && most > 0
        ? `Only ${most} can.`
        : undefined;
  const isReady = countFault === undefined && (how === 'role' || people.length > 0);
  const by: DecidedBy = how === 'role' ? { role } : { people: [...people] };
  const save = () =>
    void setApprovalRule(site.key, { page, by: 'role' in by ? by : { people: [...by.people] }, count: number }).then(
      onDone,
      (problem: unknown) => setFault(wordsOfFault(problem)),
    );
  return (
    <form
      aria-label="Who approves"
      className="flex flex-col gap-3 rounded-md border border-rule px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (isReady) save();
      }}
    >
      {fault && <Notice>{fault}</Notice>}
      {rule ? (
        <p className="font-medium">{placeWords(site, rule.page)}</p>
      ) : (
        <PageField
          label="What needs approval"
          value={page ?? WHOLE_SITE.value}
          others={[WHOLE_SITE]}
          onChoose={(value) => setPage(value === WHOLE_SITE.value ? null : (value as PageId))}
          hint="The page, with all below it."
        />
      )}
      <Radios
        legend="Who decides"
        choices={[
          { value: 'role', words: 'Whoever has a role there' },
          { value: 'people', words: 'These persons' },
        ]}
        value={how}
        onChoose={setHow}
      />
      {how === 'role' ? (
        <Choice
          label="Role"
          hint="Whoever may do as much decides too. Nobody approves what they propose themselves."
          value={role}
          onChange={(event) => setRole(event.target.value as RoleId)}
        >
          {roles.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
      ) : (
        <fieldset className="flex flex-col">
          <legend className="mb-1 text-small font-medium">Persons</legend>
          {colleagues
            .filter(({ state }) => state !== 'suspended')
            .map(({ id, name }) => (
              <Tick
                key={id}
                label={name}
                checked={people.includes(id)}
                onChange={() => setPeople(people.includes(id) ? people.filter((one) => one !== id) : [...people, id])}
              />
            ))}
        </fieldset>
      )}
      <TextField
        label="How many must approve"
        inputMode="numeric"
        className="max-w-24"
        value={count}
        fault={countFault}
        onChange={(event) => setCount(event.target.value)}
      />
      <div className="flex gap-2">
        <Button look="main" type="submit" disabled={!isReady}>
          Ask for approval
        </Button>
        <Button onClick={onDone}>Cancel</Button>
      </div>
    </form>
  );
}

/** Each page that needs approval, with who gives it. */
function useRuleMarks(rules: readonly ApprovalRuleAnswer[], people: ReturnType<typeof useColleagues>): Marks | null {
  const { site } = useWorkbench();
  return useMemo(() => {
    if (rules.length === 0) return null;
    const words = new Map<PageId, string>();
    // The nearest holds: those further down come later, and overwrite.
    const depth = (page: PageId | null): number => (page === null ? -1 : depthOf(page));
    const depthOf = (page: PageId): number => 1 + depth(site.nodes.get(page)?.parent ?? null);
    for (const { page, by, count } of [...rules].sort((a, b) => depth(a.page) - depth(b.page))) {
      const own = decidersWords(by, count, people);
      const through = page === null ? '' : `, through ‘${textIn(nodeAt(site, page).title, site.settings.language)}’`;
      for (const one of branchOf(site, page)) words.set(one, own + (one === page ? '' : through));
    }
    return { name: 'Approved by', words };
  }, [rules, people, site]);
}
