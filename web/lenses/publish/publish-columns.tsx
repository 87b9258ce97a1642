import { shortDayWords } from '#core/model/moment-words.ts';
import { differencesOf } from '#core/derive/state.ts';
import { Address, type Column, stateColumn } from '../../tree/columns.tsx';
import type { ApprovalStanding } from '#core/approval/standing.ts';
import { STANDING_WORDS } from './approval/approval-words.ts';
import { liveAddress } from '../../tree/live-address.ts';
import { DIFFERENCE_WORDS } from '../../tree/words.ts';

/** The columns of the Publish lens. */
export const PUBLISH_COLUMNS: readonly Column[] = [
  stateColumn(104),
  {
    key: 'differs',
    name: 'What differs',
    width: 120,
    isMinor: true,
    values: ({ site, derived }, row) => [
      derived.states[row] === 'live'
        ? ''
        : differencesOf(site, derived.outline.nodes[row]!.id)
            .map((difference) => DIFFERENCE_WORDS[difference])
            .join(', '),
    ],
    cell: ([words]) => <span className="truncate">{words}</span>,
  },
  {
    key: 'approval',
    name: 'Approval',
    width: 108,
    isMinor: true,
    values: ({ approvals, derived }, row) => [
      approvals === null || approvals.answer.rules.length === 0 || derived.states[row] === 'live'
        ? 'free'
        : approvals.standing(derived.outline.nodes[row]!.id).standing,
    ],
    cell: ([standing]) => (
      <span
        className={`truncate ${standing === 'approved' ? 'text-accent' : standing === 'free' ? 'text-quiet' : 'text-attention'}`}
      >
        {STANDING_WORDS[standing as ApprovalStanding]}
      </span>
    ),
  },
  {
    key: 'last-change',
    name: 'Last change',
    width: 126,
    isMinor: true,
    values: ({ site, derived, changes }, row) => {
      const last = derived.states[row] === 'live' ? undefined : changes?.get(derived.outline.nodes[row]!.id);
      return [last ? `${shortDayWords(last.at, site.settings.timeZone)}, ${last.by}` : ''];
    },
    cell: ([words]) => <span className="truncate text-quiet">{words}</span>,
  },
  {
    key: 'address-now',
    name: 'Address now',
    width: 130,
    grows: true,
    isMinor: true,
    values: ({ site, derived }, row) => [liveAddress(site, derived.outline.nodes[row]!.id)],
    cell: ([text]) => <Address text={text as string | null} isQuiet={false} />,
  },
  {
    key: 'address-after',
    name: 'Address after',
    width: 130,
    grows: true,
    isMinor: true,
    values: ({ site, derived }, row) => [
      derived.states[row] === 'retired' ? null : derived.addresses[row]!,
      derived.states[row] !== 'retired' && derived.addresses[row] === liveAddress(site, derived.outline.nodes[row]!.id),
    ],
    cell: ([text, isSame]) =>
      isSame ? <span className="text-quiet">the same</span> : <Address text={text as string | null} isQuiet={false} />,
  },
];
