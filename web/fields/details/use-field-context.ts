import { useMemo } from 'react';
import { fieldContextOf } from '#core/fields/context.ts';
import type { FieldContext } from '#core/fields/field-type.ts';
import { dayIn } from '#core/model/moment-words.ts';
import type { Site } from '#core/model/site.ts';
import { useLibrary } from '../../api/files.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The day of now by the clock of a site, as ISO 8601 has it. */
export const todayOf = (site: Site): string => dayIn(site.settings.timeZone, new Date());

const contexts = new WeakMap<Site, FieldContext>();

/** What reading and saying values of a site needs, without the names of its files: for rows, which ask for it again and again. */
export function fieldContextOfRows(site: Site): FieldContext {
  let context = contexts.get(site);
  if (!context) contexts.set(site, (context = fieldContextOf(site, todayOf(site))));
  return context;
}

/** What reading and saying what pages say in their fields needs. */
export function useFieldContext(): FieldContext {
  const { site } = useWorkbench();
  const library = useLibrary(site.key);
  return useMemo(
    () => fieldContextOf(site, todayOf(site), (file) => library?.find(({ id }) => id === file)?.name),
    [site, library],
  );
}
