import { ArrowLeftRight } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { compareAccess } from '#core/derive/compare-access.ts';
import { EVERYONE, closureOf } from '#core/model/audience.ts';
import type { AudienceId } from '#core/model/audience.ts';
import { reasonWords } from '#core/derive/reason-words.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { MarkedRows } from '../../settings/marked-rows.tsx';
import { useMarkRows } from '../../settings/use-mark-rows.ts';
import type { WholeKind } from '../../settings/settings-kind.ts';
import { useVisitors } from '../../api/visitors.ts';
import { audiencesOf } from '../../tree/access-of.ts';
import { pages } from '../../tree/words.ts';
import { MomentField } from '../../fields/day-field.tsx';
import { Choice } from '../../ui/field.tsx';
import { useNow } from '../../ui/use-now.ts';
import { type Marks, useWorkbench } from '../../workbench/workbench-context.tsx';

/** One side of the comparison: an audience or a person, at a moment; empty for now. */
interface Side {
  readonly who: string;
  readonly moment: string;
}

interface Somebody {
  readonly id: string;
  readonly name: string;
  readonly audiences: readonly AudienceId[];
}

/** Compares two audiences, two people or two moments: the pages that one has and the other has not, and why. */
export const COMPARING: WholeKind = {
  title: 'Compare who can open what',
  Sign: ArrowLeftRight,
  description:
    'Compare two audiences, two people, or one of them at two moments, in the draft. The pages that differ are marked in the tree.',
  Whole: Comparison,
};

function Comparison() {
  const { site } = useWorkbench();
  const audiences: Somebody[] = audiencesOf(site).map(({ id, name }) => ({ id, name, audiences: [id] }));
  const people: Somebody[] = usePeople();
  const [left, setLeft] = useState<Side>({ who: EVERYONE, moment: '' });
  const [right, setRight] = useState<Side>({ who: site.settings.audiences[0]?.id ?? EVERYONE, moment: '' });
  const now = useNow();
  const all = [...audiences, ...people];
  const seeing = ({ who, moment }: Side) => ({
    visitor: closureOf(site.settings.audiences, all.find(({ id }) => id === who)?.audiences ?? [EVERYONE]),
    at: moment === '' ? now : new Date(moment).getTime(),
  });
  const nameOf = ({ who }: Side) => all.find(({ id }) => id === who)?.name ?? 'Everyone';
  const differences = compareAccess(site, seeing(left), seeing(right));
  const said = differences.map(({ page, left: mine }) => `${page} ${mine.opens ? 'left' : 'right'}`).join();
  const names = { left: nameOf(left), right: nameOf(right) };
  useMarkRows(useMarksOf(said, names.left, names.right));
  const only = (side: 'left' | 'right') => differences.filter((one) => one[side].opens).length;
  return (
    <div className="flex flex-col gap-4">
      <div className="grid gap-4 @lg:grid-cols-2">
        <OneSide legend="One" side={left} audiences={audiences} people={people} onSet={setLeft} />
        <OneSide legend="The other" side={right} audiences={audiences} people={people} onSet={setRight} />
      </div>
      <MarkedRows count={differences.length}>
        {differences.length === 0
          ? 'Both can open the same pages.'
          : `${nameOf(left)} alone: ${pages(only('left'))}. ${nameOf(right)} alone: ${pages(only('right'))}.`}
      </MarkedRows>
      <Differences differences={differences} left={nameOf(left)} right={nameOf(right)} />
    </div>
  );
}

/** The pages that differ, each with who alone can open it; the same object while these are the same. */
const useMarksOf = (said: string, left: string, right: string): Marks =>
  useMemo(
    () => ({
      name: 'Only',
      words: new Map(
        said
          .split(',')
          .filter((one) => one !== '')
          .map((one) => {
            const [page, side] = one.split(' ');
            return [page as PageId, side === 'left' ? left : right];
          }),
      ),
    }),
    [said, left, right],
  );

function usePeople(): Somebody[] {
  const { site, may } = useWorkbench();
  const visitors = useVisitors(may('people', null) ? site.key : null);
  return useMemo(() => (visitors ?? []).map(({ id, name, audiences }) => ({ id, name, audiences })), [visitors]);
}

function OneSide({
  legend,
  side,
  audiences,
  people,
  onSet,
}: {
  readonly legend: string;
  readonly side: Side;
  readonly audiences: readonly Somebody[];
  readonly people: readonly Somebody[];
  readonly onSet: (side: Side) => void;
}) {
  const options = (list: readonly Somebody[]) =>
    list.map(({ id, name }) => (
      <option key={id} value={id}>
        {name}
      </option>
    ));
  return (
    <fieldset className="flex flex-col gap-2">
      <legend className="sr-only">{legend}</legend>
      <Choice label={legend} value={side.who} onChange={(event) => onSet({ ...side, who: event.target.value })}>
        <optgroup label="Audiences">{options(audiences)}</optgroup>
        {people.length > 0 && <optgroup label="People">{options(people)}</optgroup>}
      </Choice>
      <MomentField
        label={`${legend}, at this moment`}
        hint="Leave empty for now."
        value={side.moment}
        onSet={(moment) => onSet({ ...side, moment })}
      />
    </fieldset>
  );
}

function Differences({
  differences,
  left,
  right,
}: {
  readonly differences: ReturnType<typeof compareAccess>;
  readonly left: string;
  readonly right: string;
}) {
  const { site, select } = useWorkbench();
  return (
    <ul aria-label="Pages that differ" className="divide-y divide-rule">
      {differences.map(({ page, left: mine, right: theirs }) => (
        <li key={page} className="py-1.5">
          <button
            type="button"
            className="font-medium text-accent hover:underline"
            onClick={() => select({ active: page, chosen: new Set([page]), anchor: page })}
          >
            {textIn(nodeAt(site, page).title, site.settings.language)}
          </button>
          <p className="text-small text-quiet">
            {mine.opens ? left : right} can open it. {mine.opens ? right : left}:{' '}
            {lowerFirst(reasonWords(site, page, mine.opens ? theirs : mine))}
          </p>
        </li>
      ))}
    </ul>
  );
}

const lowerFirst = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);
