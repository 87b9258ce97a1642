import type { Column } from './columns.tsx';

const known = new Map<string, Column>();

/** The column that says of marked rows why they are: what has become of them since, or why a setting touches them. */
export function markColumn(name: string): Column {
  let column = known.get(name);
  if (!column) {
    column = {
      key: 'mark',
      name,
      width: 150,
      values: ({ marks, derived }, row) => [marks?.words.get(derived.outline.nodes[row]!.id) ?? null],
      cell: ([words]) =>
        words !== null && (
          <span className="truncate text-small" title={String(words)}>
            {words}
          </span>
        ),
    };
    known.set(name, column);
  }
  return column;
}
