import { useMemo } from 'react';
import type { Filter } from '#core/derive/filters.ts';
import { z } from 'zod';
import { usePreference } from '../api/preferences.ts';
import type { Site } from '#core/model/site.ts';
import type { ColumnSet } from '../lenses/lens-definition.ts';
import type { Column } from './columns.tsx';
import { detailColumns } from './detail-columns.tsx';

const layoutSchema = z.object({
  order: z.array(z.string()).max(100),
  hidden: z.array(z.string()).max(100),
  widths: z.record(z.string(), z.number().min(40).max(800)),
});
export type ColumnLayout = z.infer<typeof layoutSchema>;

const AS_AT_FIRST: ColumnLayout = { order: [], hidden: [], widths: {} };
export const NARROWEST = 48;
export const WIDEST = 640;
/** The layout's key for the column of titles, which is always there and always first. */
export const TITLE = 'title';

/** The columns of a set as the person has them, all of them in their order, and how to change that. */
export function useColumnLayout(
  set: ColumnSet,
  site: Site,
  filter: Filter,
): {
  readonly columns: readonly Column[];
  readonly all: readonly Column[];
  readonly layout: ColumnLayout;
  readonly setLayout: (layout: ColumnLayout) => void;
} {
  const [layout, setLayout] = usePreference(`columns.${set.key}`, layoutSchema, AS_AT_FIRST);
  const columnsOfSet = set.of(site);
  const ofKind = detailColumns(site.settings.labels, filter);
  const all = useMemo(() => {
    const place = (column: Column) => {
      const at = layout.order.indexOf(column.key);
      return at === -1 ? layout.order.length : at;
    };
    return [...ofKind, ...columnsOfSet].sort((a, b) => place(a) - place(b));
  }, [columnsOfSet, ofKind, layout.order]);
  const columns = useMemo(() => all.filter((one) => !layout.hidden.includes(one.key)), [all, layout.hidden]);
  return { columns, all, layout, setLayout };
}

/** In a sheet narrower than this titles alone have room. */
const TITLES_ONLY = 280;
/** In a sheet narrower than this the person's own widths do not count. */
const NARROW = 560;
const NARROWEST_TITLE = 208;
const NO_COLUMNS: readonly Column[] = [];
const TITLE_IN_WIDE = 236;

/**
 * The columns that have room in a sheet of that width: minor ones give way, the last ones first; in a narrow one all do but the first that
 * is left, so that titles can be read.
 */
export function columnsWithRoom(columns: readonly Column[], { widths }: ColumnLayout, room: number): readonly Column[] {
  if (room < TITLES_ONLY) return NO_COLUMNS;
  const widthOf = (one: Column) => (room < NARROW ? one.width : (widths[one.key] ?? one.width));
  const shown = [...columns];
  let left = room - (room < NARROW ? NARROWEST_TITLE : (widths[TITLE] ?? TITLE_IN_WIDE));
  for (const one of shown) left -= widthOf(one);
  while (left < 0) {
    let next = shown.findLastIndex((one) => one.isMinor);
    if (next === -1 && room < NARROW) next = shown.length - 1;
    if (next === -1 || shown.length === 1) break;
    left += widthOf(shown.splice(next, 1)[0]!);
  }
  return shown.length === columns.length ? columns : shown;
}

/** The CSS grid tracks of the title and these columns. */
export function tracksOf(shown: readonly Column[], { widths }: ColumnLayout, room: number): string {
  const isNarrow = room < NARROW;
  const title = isNarrow
    ? `minmax(${NARROWEST_TITLE}px, 1.6fr)`
    : widths[TITLE] === undefined
      ? 'minmax(0, 1.6fr)'
      : `${widths[TITLE]}px`;
  const track = (one: Column) =>
    widths[one.key] !== undefined && !isNarrow
      ? `${widths[one.key]}px`
      : one.grows
        ? `minmax(${isNarrow ? 0 : one.width}px, 1fr)`
        : isNarrow
          ? `minmax(0, ${one.width}px)`
          : `${one.width}px`;
  // Where every width was chosen, what room is left stays empty at the end.
  const isLeft = !isNarrow && widths[TITLE] !== undefined && shown.every((one) => !one.grows || widths[one.key]);
  return [title, ...shown.map(track), ...(isLeft ? ['1fr'] : [])].join(' ');
}
