import { isAsItsKind } from '#core/model/kind-outline.ts';
import { isKind } from '#core/model/page-label.ts';
import type { Site } from '#core/model/site.ts';
import { type Column, address, hidden, inMenus, kind, stateColumn } from '../../tree/columns.tsx';

const ALL: readonly Column[] = [
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
    values: ({ site, derived }, row) => {
      const node = derived.outline.nodes[row]!;
      if (node.type !== 'page') return [null];
      return [node.content === null ? 'None yet' : isAsItsKind(node, site.settings.labels) ? 'Outline' : 'Written'];
    },
    cell: ([words]) => words && <span className={words === 'None yet' ? 'text-attention' : 'text-quiet'}>{words}</span>,
  },
];
const WITHOUT_KINDS = ALL.filter((column) => column !== kind);

/** The columns of the Write lens; that of kinds where the site has some. */
export const writeColumns = ({ settings }: Site): readonly Column[] =>
  settings.labels.some(isKind) ? ALL : WITHOUT_KINDS;
