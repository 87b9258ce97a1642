import { useEffect } from 'react';
import { useDrag } from '../drag/drag-context.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { SETTINGS } from './all-settings.ts';
import type { SettingsKey } from './settings-keys.ts';

/** Lets pages that are dragged be dropped on settings: what carries `data-give` with the id of one. */
export function useGiveTarget(of: SettingsKey): void {
  const { latest } = useWorkbench();
  const { registerGive } = useDrag();
  useEffect(() => {
    const kind = SETTINGS[of];
    const give = 'Fields' in kind ? kind.give : undefined;
    if (!give) return;
    return registerGive({
      at: (x, y) => document.elementFromPoint(x, y)?.closest<HTMLElement>('[data-give]')?.dataset.give ?? null,
      edits: (pages, setting) => give(latest().site, pages, setting),
    });
  }, [of, latest, registerGive]);
}
