import { type Finder, accessReason } from '#core/derive/access.ts';
import { reasonWords } from '#core/derive/reason-words.ts';
import { type AccessChange, NO_RULE, ruleOf } from '#core/model/access.ts';
import { type AudienceId, EVERYONE, SIGNED_OUT, closureOf } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { narrowsWho, saysWho, withoutNarrowing } from '#core/model/narrowing.ts';
import { type Site, nodeAt } from '#core/model/site.ts';
import { ANSWER_LOOKS, ANSWER_WORDS, type Answer, accessOf, answerAt, audiencesOf } from '../../tree/access-of.ts';
import { type CellChoice, ChoiceCell } from '../../tree/cells.tsx';
import type { CellContext, Column } from '../../tree/columns.tsx';

const known = new WeakMap<Site['settings'], readonly Column[]>();

/** The columns of the Access lens: one for everyone and for each audience of the site, then the site's search and search engines. */
export function accessColumns(site: Site): readonly Column[] {
  let columns = known.get(site.settings);
  if (!columns) {
    const audiences = audiencesOf(site);
    columns = [
      ...audiences.map(({ id, name }, bit) => audienceColumn(id, name, bit)),
      finderColumn('search'),
      finderColumn('engines'),
    ];
    known.set(site.settings, columns);
  }
  return columns;
}

const audienceColumn = (id: AudienceId, name: string, bit: number): Column => ({
  key: `audience-${id}`,
  edits: 'access',
  name,
  width: 96,
  isMinor: bit > 1,
  values: ({ site, derived, moment }, row) => {
    const { access } = derived.outline.nodes[row]!;
    const rule = access ?? NO_RULE;
    const { only, except, standsAlone } = rule;
    return [
      answerAt(accessOf(site, moment).table, row, bit),
      saysWho(rule, site.settings.labels),
      only?.join() ?? null,
      except.join(),
      standsAlone,
      narrowsWho({ ...rule, only: null, except: [] }, site.settings.labels),
    ];
  },
  cell: ([answer, isOwn, only, except, standsAlone, hasMore], context) => (
    <ChoiceCell
      field={name}
      words={ANSWER_WORDS[answer as Answer]}
      sign={isOwn === true && <GateSign />}
      title={`${answer === 'asks' ? 'It asks for a passphrase. ' : ''}${isOwn === true ? 'By a rule of its own' : 'Same as the page above'}`}
      look={ANSWER_LOOKS[answer as Answer] + (isOwn === true ? ' font-medium' : '')}
      label={`Who can open it: ${context.title}`}
      why={() => whyFor(id, context)}
      context={context}
      choices={choicesFor(
        id,
        name,
        listed(only as string | null),
        listed(except as string) ?? [],
        standsAlone === true,
        hasMore === true,
        (page) => clearedOf(page, context),
      )}
    />
  ),
});

function clearedOf(page: PageId, { latest }: CellContext): AccessChange {
  const { site } = latest();
  return withoutNarrowing(ruleOf(nodeAt(site, page)).labels, site.settings.labels);
}

/** Why visitors of an audience get what they get of a page, at the moment that is looked at. */
function whyFor(id: AudienceId, { page, latest }: CellContext): string {
  const { site, moment } = latest();
  const visitor = closureOf(site.settings.audiences, [id]);
  return reasonWords(site, page, accessReason(site, page, visitor, moment ?? Date.now()));
}

const listed = (ids: string | null): AudienceId[] | null =>
  ids === null ? null : (ids.split(',').filter(Boolean) as AudienceId[]);

/** What can be chosen in the cell of an audience, for a page with that rule; `everyone` can only be let in. */
export function choicesFor(
  id: AudienceId,
  name: string,
  only: readonly AudienceId[] | null,
  except: readonly AudienceId[],
  standsAlone: boolean,
  /** Whether it bears labels that narrow, or asks for a passphrase, besides. */
  hasMore = false,
  /** What takes all that narrows a page away. */
  cleared: (page: PageId) => AccessChange = () => withoutNarrowing([], []),
): CellChoice[] {
  const asAbove: CellChoice = {
    words: 'As the page above',
    isChosen: only === null && except.length === 0 && !standsAlone && !hasMore,
    fields: (page) => ({ access: cleared(page) }),
  };
  const alone: CellChoice = {
    words: 'Everyone, whatever is above',
    isChosen: standsAlone && only === null && except.length === 0 && !hasMore,
    fields: (page) => ({ access: { ...cleared(page), standsAlone: true } }),
  };
  if (id === EVERYONE)
    return [
      asAbove,
      alone,
      {
        words: 'Only visitors who are not signed in',
        isChosen: only?.join() === SIGNED_OUT && except.length === 0,
        fields: { access: { only: [SIGNED_OUT], except: [] } },
      },
    ];
  const others = (only ?? []).filter((one) => one !== id);
  return [
    asAbove,
    {
      words: `Only ${name}`,
      isChosen: only?.join() === id && except.length === 0,
      fields: { access: { only: [id], except: [] } },
    },
    ...(only !== null && !only.includes(id)
      ? [{ words: `${name} too`, isChosen: false, fields: { access: { only: [...only, id] } } }]
      : []),
    ...(only?.includes(id) && others.length > 0
      ? [{ words: `Not ${name} any more`, isChosen: false, fields: { access: { only: others } } }]
      : []),
    except.includes(id)
      ? {
          words: `Allow ${name} again`,
          isChosen: false,
          fields: { access: { except: except.filter((one) => one !== id) } },
        }
      : { words: `All but ${name}`, isChosen: false, fields: { access: { except: [...except, id] } } },
  ];
}

/** What the words of a finder are, and whether it is offered a row at all: search takes what anybody may open, engines what everyone may. */
const FINDERS: Readonly<
  Record<Finder, { name: string; label: string; yes: string; no: string; choice: string; mask: number }>
> = {
  search: {
    name: 'Site search',
    label: 'Whether site search finds it',
    yes: 'Found',
    no: 'Closed',
    choice: 'Ignore found',
    mask: -1,
  },
  engines: {
    name: 'Search engines',
    label: 'Whether search engines are offered it',
    yes: 'Offered',
    no: 'Not open to all',
    choice: 'Offer it',
    mask: 1,
  },
};

function finderColumn(finder: Finder): Column {
  const { name, label, yes, no, choice, mask } = FINDERS[finder];
  return {
    key: finder,
    edits: 'access',
    name,
    width: finder === 'engines' ? 116 : 96,
    isMinor: true,
    values: ({ site, derived, moment }, row) => {
      const node = derived.outline.nodes[row]!;
      if (node.type !== 'page') return [null, 'no'];
      const { table, heldBack } = accessOf(site, moment);
      const own = ruleOf(node);
      const isOffered = (table.open[row]! & mask) !== 0 && own.standsIn === null;
      return [isOffered ? (heldBack[finder][row] === -1 ? yes : 'Left out') : no, own[finder]];
    },
    cell: ([words, own], context) =>
      words !== null && (
        <ChoiceCell
          field={name}
          words={words as string}
          look={words === yes ? 'text-accent' : 'text-quiet'}
          label={label}
          context={context}
          choices={[
            { words: choice, isChosen: own === 'no', fields: { access: { [finder]: 'no' } } },
            { words: 'Leave out this page', isChosen: own === 'page', fields: { access: { [finder]: 'page' } } },
            { words: 'Leave out the branch', isChosen: own === 'branch', fields: { access: { [finder]: 'branch' } } },
          ]}
        />
      ),
  };
}

/** A gate: here access narrows. */
export function GateSign() {
  return (
    <svg width="10" height="12" aria-hidden className="shrink-0" fill="none">
      <path d="M1 4h8M1 8h8" stroke="currentColor" strokeWidth="1.75" strokeLinecap="round" />
    </svg>
  );
}
