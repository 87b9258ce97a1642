import {
  Copy,
  Eye,
  EyeOff,
  FolderInput,
  ListMinus,
  ListPlus,
  Rocket,
  Scissors,
  SlidersHorizontal,
  Trash2,
} from 'lucide-react';
import { topmost } from '#core/arrange/arrange.ts';
import type { Permission } from '#core/model/permission.ts';
import { branchOf } from '#core/model/site.ts';
import { pages, withBelow } from '../tree/words.ts';
import type { BarAction } from './bar-action.ts';
import { type CommandName, KEYS } from './keys.ts';
import { useWorkbench } from './workbench-context.tsx';

const none = (): readonly BarAction[] => [];

/** What can be done with several pages at once, also through the lens alone. */
export function useSelectionActions(): readonly BarAction[] {
  const { site, store, chosen, run, may, mayPublish, setBeside, lensParts } = useWorkbench();
  const { useSelectionActions: useOfLens = none } = lensParts;
  const ofLens = useOfLens();
  const tops = topmost(site, chosen);
  const below = tops.reduce((count, id) => count + branchOf(site, id).length - 1, 0);
  const set = (fields: { inMenus?: boolean; hidden?: 'no' | 'page' }) => () =>
    void store.apply(chosen.map((page) => ({ name: 'page.set', page, fields })));
  const of = (label: string, Sign: BarAction['Sign'], run: () => void, more: Partial<BarAction> = {}): BarAction => ({
    label,
    words: label,
    Sign,
    run,
    ...more,
  });
  const key = (command: CommandName) => ({ keys: KEYS[command].keys });
  const sign = { shows: 'sign' } as const;
  const some = pages(chosen.length);
  const mayAll = (permission: Permission) => chosen.every((page) => may(permission, page));
  return [
    ...(mayAll('menus')
      ? [
          of('In menus', ListPlus, set({ inMenus: true }), { words: 'Put them in menus', shows: 'label' }),
          of('Off menus', ListMinus, set({ inMenus: false }), { words: 'Take them off menus', shows: 'label' }),
        ]
      : []),
    ...(mayAll('access')
      ? [
          of(`Hide ${some}`, EyeOff, set({ hidden: 'page' }), sign),
          of(`Show ${some} again`, Eye, set({ hidden: 'no' }), sign),
        ]
      : []),
    ...(mayAll('write') || mayAll('plan')
      ? [of('Set fields…', SlidersHorizontal, () => setBeside({ kind: 'fields', id: null }), sign)]
      : []),
    of(`Copy ${some}`, Copy, () => run('copy'), { ...sign, ...key('copy') }),
    ...(mayAll('shape')
      ? [
          of(`Cut ${some}`, Scissors, () => run('cut'), { ...sign, ...key('cut') }),
          of(`Move ${tops.length} to…`, FolderInput, () => run('moveTo'), { shows: 'label', ...key('moveTo') }),
          of(`Remove ${withBelow(tops.length, below)}`, Trash2, () => run('remove'), {
            shows: 'label',
            ...key('remove'),
          }),
        ]
      : []),
    ...ofLens,
    ...(mayPublish && chosen.some((page) => may('publish', page))
      ? [of('Make live…', Rocket, () => setBeside({ kind: 'going-live', id: null }), sign)]
      : []),
  ];
}
