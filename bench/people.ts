import { outlineOf } from '#core/derive/outline.ts';
import type { PageId } from '#core/model/ids.ts';
import { type RoleAt, powersOf, powersTable } from '#core/people/powers.ts';
import { SHIPPED_ROLES } from '#core/people/role.ts';
import type { Site } from '#core/model/site.ts';
import { generateSite } from './generate-site.ts';
import { type Result, ms, timeByTurns } from './measure.ts';

const SIZE = 100_000;
const BRANCHES = 50;

/** A colleague's roles: editor on the whole site, and one of the other roles on each of some branches spread over it. */
export function rolesInBranches(site: Site, count = BRANCHES, others = SHIPPED_ROLES): RoleAt[] {
  const pages = [...site.nodes.keys()];
  return [
    { page: null, role: SHIPPED_ROLES[2]!.id },
    ...Array.from({ length: count }, (_, at) => ({
      page: pages[Math.floor((at * pages.length) / count)] as PageId,
      role: others[at % others.length]!.id,
    })),
  ];
}

/** What a colleague may do at each of 100,000 pages, beside a bare pass that hands one number down. */
export function benchPeople(): Result[] {
  const site = generateSite(SIZE);
  const outline = outlineOf(site);
  const powers = powersOf(SHIPPED_ROLES, rolesInBranches(site));
  const own = Uint16Array.from(outline.nodes, ({ id }) => powers.onBranches.get(id)?.permissions ?? 0);
  const { parent } = outline;
  const bare = () => {
    const held = new Uint16Array(SIZE);
    for (let row = 0; row < SIZE; row++) {
      const above = parent[row]!;
      held[row] = own[row] !== 0 ? own[row]! : above === -1 ? 1 : held[above]!;
    }
    return held;
  };
  const [ours, limit] = timeByTurns(9, [() => powersTable(outline, powers, null), bare]) as [number, number];
  return [
    {
      what: `What a colleague with roles in ${BRANCHES} branches may do at each of ${SIZE.toLocaleString('en')} pages`,
      ours: ms(ours),
      limit: `${ms(limit)}, a bare pass that hands one number down`,
      ratio: ours / limit,
      aim: 'none set',
      isMet: true,
    },
  ];
}
