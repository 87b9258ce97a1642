import { format, parseISO } from 'date-fns';
import { PAGE_CHECKS } from '#core/checks/page-checks.ts';
import { leadsTo } from '#core/derive/menu.ts';
import { ruleOf } from '#core/model/access.ts';
import { kindAmong } from '#core/model/page-label.ts';
import { differencesOf } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import type { ReactNode } from 'react';
import type { ColumnSet } from '../workbench/lenses.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import { HiddenCell, InMenusCell, KindCell } from './cells.tsx';
import { PLAN_COLUMNS, SHARED_COLUMNS } from './plan-columns.tsx';
import { liveAddress } from './live-address.ts';
import { DIFFERENCE_WORDS, FAULT_WORDS, STATE_WORDS } from './words.ts';

export type Plain = string | number | boolean | null;

/** What a cell needs beside its values. */
export interface CellContext {
  readonly page: PageId;
  readonly title: string;
  readonly mayEdit: boolean;
  /** The workbench as it is when something is done: a row is drawn anew only when what it shows has changed. */
  readonly latest: () => Workbench;
}

/** A column says what it shows of a row as plain values, and how these look: rows with equal values are not drawn anew. */
export interface Column {
  readonly key: string;
  readonly name: string;
  /** In pixels, until the person chooses another. */
  readonly width: number;
  /** Whether it takes what room is left. */
  readonly grows?: boolean;
  /** Left out where the sheet is narrow. */
  readonly isMinor?: boolean;
  readonly values: (workbench: Workbench, row: number) => readonly Plain[];
  readonly cell: (values: readonly Plain[], context: CellContext) => ReactNode;
}

export const inMenus: Column = {
  key: 'in-menus',
  name: 'In menus',
  width: 80,
  values: ({ derived }, row) => [derived.outline.inMenus[row] === 1],
  cell: ([isIn], context) => <InMenusCell isIn={isIn === true} context={context} />,
};
export const hidden: Column = {
  key: 'hidden',
  name: 'Hidden',
  width: 120,
  isMinor: true,
  values: ({ site, derived }, row) => {
    const by = derived.hiddenBy[row]!;
    const isInherited = by !== -1 && by !== row;
    return [
      derived.outline.nodes[row]!.hidden,
      isInherited ? textIn(derived.outline.nodes[by]!.title, site.settings.language) : null,
    ];
  },
  cell: ([own, by], context) => (
    <HiddenCell hidden={own as 'no' | 'page' | 'branch'} hiddenBy={by as string | null} context={context} />
  ),
};
const kind: Column = {
  key: 'kind',
  name: 'Kind',
  width: 84,
  isMinor: true,
  values: ({ site, derived }, row) => {
    const node = derived.outline.nodes[row]!;
    if (node.type !== 'page') return [null, null];
    const own = kindAmong(ruleOf(node).labels, site.settings.labels);
    return [own?.id ?? '', own?.name ?? null];
  },
  cell: ([own, name], context) =>
    own !== null && <KindCell own={own as string} name={name as string | null} context={context} />,
};
const stateColumn = (width: number): Column => ({
  key: 'state',
  name: 'State',
  width,
  isMinor: width < 100,
  values: ({ derived }, row) => [derived.states[row]!],
  cell: ([state]) => <StateWord state={state as keyof typeof STATE_WORDS} />,
});
const address: Column = {
  key: 'address',
  name: 'Address',
  width: 200,
  grows: true,
  isMinor: true,
  values: ({ derived }, row) => [derived.addresses[row] ?? leadsTo(derived, row), derived.addresses[row] === null],
  cell: ([text, isQuiet]) => <Address text={text as string | null} isQuiet={isQuiet === true} />,
};

/** The columns after the title, by lens and for guests, as they are at first. Those of the Access and the Menus lens depend on the site. */
export const COLUMNS: Readonly<Record<Exclude<ColumnSet, 'access' | 'menus'>, readonly Column[]>> = {
  plan: PLAN_COLUMNS,
  shared: SHARED_COLUMNS,
  write: [
    inMenus,
    hidden,
    stateColumn(96),
    address,
    kind,
    {
      key: 'text',
      name: 'Text',
      width: 72,
      isMinor: true,
      values: ({ derived }, row) => {
        const node = derived.outline.nodes[row]!;
        return [node.type !== 'page' ? null : node.content === null ? 'None yet' : 'Written'];
      },
      cell: ([words]) =>
        words && <span className={words === 'Written' ? 'text-quiet' : 'text-attention'}>{words}</span>,
    },
  ],
  publish: [
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
      values: ({ derived, changes }, row) => {
        const last = derived.states[row] === 'live' ? undefined : changes?.get(derived.outline.nodes[row]!.id);
        return [last ? `${format(parseISO(last.at), 'd MMM')}, ${last.by}` : ''];
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
        derived.states[row] !== 'retired' &&
          derived.addresses[row] === liveAddress(site, derived.outline.nodes[row]!.id),
      ],
      cell: ([text, isSame]) =>
        isSame ? (
          <span className="text-quiet">the same</span>
        ) : (
          <Address text={text as string | null} isQuiet={false} />
        ),
    },
  ],
  checks: [
    {
      key: 'links',
      name: 'Links',
      width: 190,
      values: ({ derived, findings }, row) => {
        const found = findings.ofLinks?.get(derived.outline.nodes[row]!.id) ?? [];
        return [found.length === 0 ? '' : FAULT_WORDS[found[0]!.fault], found.length];
      },
      cell: ([words, count]) => (
        <span className="truncate text-attention">
          {words}
          {Number(count) > 1 && `, and ${Number(count) - 1} more`}
        </span>
      ),
    },
    {
      key: 'lacks',
      name: 'The page',
      width: 190,
      isMinor: true,
      values: ({ derived, findings }, row) => {
        const found = findings.ofPages?.get(derived.outline.nodes[row]!.id) ?? [];
        return [
          found.map(({ fault }, at) => (at === 0 ? PAGE_CHECKS[fault].called : PAGE_CHECKS[fault].called.toLowerCase())).join(', '),
        ];
      },
      cell: ([words]) => (
        <span title={String(words)} className="truncate text-attention">
          {words}
        </span>
      ),
    },
    stateColumn(96),
    address,
  ],
};

function StateWord({ state: of }: { readonly state: keyof typeof STATE_WORDS }) {
  const look = of === 'live' ? 'text-quiet' : of === 'retired' ? 'text-quiet italic' : 'font-medium text-ink';
  return <span className={look}>{STATE_WORDS[of]}</span>;
}

function Address({ text, isQuiet }: { readonly text: string | null; readonly isQuiet: boolean }) {
  if (text === null) return null;
  return (
    // Where there is no room for all of it, the end is what tells addresses apart: the start gives way.
    <span title={text} dir="rtl" className={`truncate text-left font-mono text-small ${isQuiet ? 'text-quiet' : ''}`}>
      <bdi dir="ltr">{text}</bdi>
    </span>
  );
}

/** Those of the Write lens where the site has no kinds. */
export const WRITE_WITHOUT_KINDS: readonly Column[] = COLUMNS.write.filter((column) => column !== kind);
