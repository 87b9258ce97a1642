import { useMemo } from 'react';
import { z } from 'zod';
import { usePreference } from '../api/preferences.ts';
import type { Lens } from '../workbench/lenses.ts';
import { COLUMNS, type Column } from './columns.tsx';

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

/** The columns of a lens as the person has them, all of them in their order, and how to change that. */
export function useColumnLayout(lens: Lens): {
  readonly columns: readonly Column[];
  readonly all: readonly Column[];
  readonly layout: ColumnLayout;
  readonly setLayout: (layout: ColumnLayout) => void;
} {
  const [layout, setLayout] = usePreference(`columns.${lens}`, layoutSchema, AS_AT_FIRST);
  const all = useMemo(() => {
    const place = (column: Column) => {
      const at = layout.order.indexOf(column.key);
      return at === -1 ? layout.order.length : at;
    };
    return [...COLUMNS[lens]].sort((a, b) => place(a) - place(b));
  }, [lens, layout.order]);
  const columns = useMemo(() => all.filter((one) => !layout.hidden.includes(one.key)), [all, layout.hidden]);
  return { columns, all, layout, setLayout };
}

/** The CSS grid tracks of the title and these columns. */
export function tracksOf(columns: readonly Column[], { widths }: ColumnLayout, isNarrow: boolean): string {
  const shown = columns.filter((one) => !isNarrow || !one.isMinor);
  const title = widths[TITLE] === undefined || isNarrow ? 'minmax(13rem, 1.6fr)' : `${widths[TITLE]}px`;
  const track = (one: Column) =>
    widths[one.key] !== undefined && !isNarrow
      ? `${widths[one.key]}px`
      : one.grows
        ? `minmax(${one.width}px, 1fr)`
        : `${one.width}px`;
  // Where every width was chosen, what room is left stays empty at the end.
  const isLeft = !isNarrow && widths[TITLE] !== undefined && shown.every((one) => !one.grows || widths[one.key]);
  return [title, ...shown.map(track), ...(isLeft ? ['1fr'] : [])].join(' ');
}
