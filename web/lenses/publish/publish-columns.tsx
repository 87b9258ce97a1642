import { shortDayWords } from '#core/model/moment-words.ts';
import { differencesOf } from '#core/derive/state.ts';
import { Address, type Column, stateColumn } from '../../tree/columns.tsx';
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
