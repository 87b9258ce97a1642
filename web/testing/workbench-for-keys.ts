import { vi } from 'vitest';
import { derivedOf } from '#core/derive/derived.ts';
import { type PageId, toPageId } from '#core/model/ids.ts';
import { FULL_POWERS, powersTable } from '#core/people/powers.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import type { Selection, Workbench } from '../workbench/workbench-context.tsx';

/** A tree from its lines, two spaces a level; a page's id is its title. */
export function siteOf(lines: readonly string[]): Site {
  const above: PageId[] = [];
  return siteAfter(
    lines.map((line): Operation => {
      const depth = line.search(/\S/) / 2;
      const page = toPageId(line.trim());
      above[depth] = page;
      return { name: 'page.add', page, place: { parent: above[depth - 1] ?? null }, title: { en: line.trim() } };
    }),
  );
}

/** The parts of a workbench that keys act on. What they do shows in `selection`, `open` and the calls of `run`. */
export function workbenchFor(site: Site, active: string | null, open: readonly string[] = []) {
  const state = {
    selection: {
      active: active === null ? null : toPageId(active),
      chosen: new Set(active === null ? [] : [toPageId(active)]),
      anchor: active === null ? null : toPageId(active),
    } as Selection,
    open: new Set(open.map(toPageId)),
  };
  const calls = { run: vi.fn(), clearFind: vi.fn(), forgetClip: vi.fn() };
  const workbench = () =>
    ({
      ...calls,
      site,
      derived: derivedOf(site),
      held: powersTable(derivedOf(site).outline, FULL_POWERS, null),
      selection: state.selection,
      open: state.open,
      found: null,
      cut: new Set(),
      here: new Map(),
      talk: null,
      select: (next: Selection) => void (state.selection = next),
      setOpen: (page: PageId, isOpen: boolean) => void (isOpen ? state.open.add(page) : state.open.delete(page)),
    }) as unknown as Workbench;
  return { state, calls, workbench };
}

export const stroke = (key: string, held: Partial<Record<'shiftKey' | 'ctrlKey' | 'altKey', boolean>> = {}) =>
  ({ key, shiftKey: false, ctrlKey: false, altKey: false, metaKey: false, ...held }) as never;
