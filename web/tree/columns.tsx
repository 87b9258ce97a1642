import { leadsTo } from '#core/derive/menu.ts';
import { isShownWhenNeeded, ruleOf } from '#core/model/access.ts';
import { kindAmong } from '#core/model/page-label.ts';
import type { Permission } from '#core/model/permission.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import type { ReactNode } from 'react';
import type { Workbench } from '../workbench/workbench-context.tsx';
import { HiddenCell, InMenusCell, KindCell } from './cells.tsx';
import { scheduledWords } from './scheduled-pages.ts';
import { STATE_WORDS, standingOf } from './words.ts';

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
  /** What it takes to change what it shows; left out where it only shows. */
  readonly edits?: Permission;
  readonly values: (workbench: Workbench, row: number) => readonly Plain[];
  readonly cell: (values: readonly Plain[], context: CellContext) => ReactNode;
}

export const inMenus: Column = {
  key: 'in-menus',
  edits: 'menus',
  name: 'In menus',
  width: 80,
  values: ({ derived }, row) => {
    const node = derived.outline.nodes[row]!;
    return [node.inMenus, isShownWhenNeeded(node) ? 'when needed' : derived.hiddenBy[row] === -1 ? null : 'hidden'];
  },
  cell: ([isIn, kept], context) => (
    <InMenusCell isIn={isIn === true} keptOut={kept as 'when needed' | 'hidden' | null} context={context} />
  ),
};
export const hidden: Column = {
  key: 'hidden',
  edits: 'access',
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
export const kind: Column = {
  key: 'kind',
  edits: 'shape',
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
export const stateColumn = (width: number): Column => ({
  key: 'state',
  name: 'State',
  width,
  isMinor: width < 100,
  values: ({ site, derived, scheduled }, row) => {
    const state = derived.states[row]!;
    return [
      standingOf(site, derived.outline.nodes[row]!.id, state),
      scheduledWords(scheduled, derived.outline.nodes[row]!.id, state, site.settings.timeZone),
    ];
  },
  cell: ([state, set]) => <StateWord state={state as keyof typeof STATE_WORDS} set={set as string | null} />,
});
export const address: Column = {
  key: 'address',
  name: 'Address',
  width: 200,
  grows: true,
  isMinor: true,
  values: ({ derived }, row) => [derived.addresses[row] ?? leadsTo(derived, row), derived.addresses[row] === null],
  cell: ([text, isQuiet]) => <Address text={text as string | null} isQuiet={isQuiet === true} />,
};

/** The state of a page; where a release is set for it, when that will change it. */
function StateWord({ state: of, set }: { readonly state: keyof typeof STATE_WORDS; readonly set: string | null }) {
  if (set !== null)
    return (
      <span title={`${STATE_WORDS[of]}. ${set}`} className="truncate font-medium text-accent">
        <span className="sr-only">{STATE_WORDS[of]}. </span>
        {set}
      </span>
    );
  const look = of === 'live' ? 'text-quiet' : of === 'retired' ? 'text-quiet italic' : 'font-medium text-ink';
  return <span className={look}>{STATE_WORDS[of]}</span>;
}

export function Address({ text, isQuiet }: { readonly text: string | null; readonly isQuiet: boolean }) {
  if (text === null) return null;
  return (
    // Where there is no room for all of it, the end is what tells addresses apart: the start gives way.
    <span title={text} dir="rtl" className={`truncate text-left font-mono text-small ${isQuiet ? 'text-quiet' : ''}`}>
      <bdi dir="ltr">{text}</bdi>
    </span>
  );
}
