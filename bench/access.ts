import { accessTable, accessTableAfter, letsPass, membershipsOf } from '#core/derive/access.ts';
import { outlineOf } from '#core/derive/outline.ts';
import { type AccessRule, NO_RULE } from '#core/model/access.ts';
import type { Audience, AudienceId } from '#core/model/audience.ts';
import { generateSite } from './generate-site.ts';
import { type Result, ms, timeByTurns } from './measure.ts';

const SIZE = 100_000;
const AUDIENCES = 16;
const EVERY = 20;

/** Who may open 100,000 pages, for everyone and 15 audiences, beside a bare pass over flat arrays of the same bits. */
export function benchAccess(): Result[] {
  const audiences = Array.from({ length: AUDIENCES - 1 }, (_, n): Audience => ({
    id: `a${n}` as AudienceId,
    name: `Audience ${n}`,
    includes: n % 4 === 3 ? [`a${n - 1}` as AudienceId] : [],
  }));
  const ruleAt = (row: number): AccessRule => ({
    ...NO_RULE,
    only: [audiences[row % audiences.length]!.id, audiences[(row * 7) % audiences.length]!.id],
    standsAlone: row % 60 === 0,
    until: row % 100 === 0 ? '2027-01-01T00:00:00Z' : null,
  });
  const site = generateSite(SIZE);
  const outline = outlineOf(site);
  const nodes = outline.nodes.map((node, row) => (row % EVERY === 0 ? { ...node, access: ruleAt(row) } : node));
  const memberships = membershipsOf(audiences);
  const at = Date.parse('2026-11-25T00:00:00Z');
  const own = Uint32Array.from(nodes, ({ access }) =>
    access === null
      ? 2 ** AUDIENCES - 1
      : memberships.reduce((sum, visitor, bit) => (letsPass(access, visitor) ? sum + 2 ** bit : sum), 0),
  );
  const alone = Uint8Array.from(nodes, ({ access }) => (access?.standsAlone ? 1 : 0));
  const { parent, hidden } = outline;
  const ruled = nodes.flatMap(({ access }, row) => (access === null ? [] : [row]));
  const bare = () => {
    const open = new Uint32Array(SIZE);
    const covered = new Uint8Array(SIZE);
    for (let row = 0; row < SIZE; row++) {
      const above = parent[row]!;
      covered[row] = hidden[row] === 2 || (above !== -1 && covered[above] === 1) ? 1 : 0;
      open[row] = (above === -1 || alone[row] === 1 ? own[row]! : open[above]! & own[row]!) >>> 0;
    }
    return open;
  };
  const rows = { nodes, parent, hidden, ruled, end: outline.end };
  const table = accessTable(rows, { labels: [] }, memberships, at);
  const branch = ruled.find((row) => outline.end[row]! - row > 20 && outline.end[row]! - row < 2000) ?? ruled[0]!;
  const [ours, limit, ofBranch] = timeByTurns(9, [
    () => accessTable(rows, { labels: [] }, memberships, at),
    bare,
    () => accessTableAfter(table, rows, { labels: [] }, memberships, at, [branch]),
  ]) as [number, number, number];
  return [
    {
      what: `The same after one rule has changed, with ${outline.end[branch]! - branch} pages in its branch`,
      ours: ms(ofBranch),
      limit: `${ms(ours)}, the whole anew`,
      ratio: ofBranch / ours,
      aim: '≤ 0.5',
      isMet: ofBranch / ours <= 0.5,
    },
    {
      what: `Who may open what, ${SIZE.toLocaleString('en')} pages for ${AUDIENCES} audiences`,
      ours: ms(ours),
      limit: `${ms(limit)}, a bare pass over flat arrays`,
      ratio: ours / limit,
      aim: '≤ 2.5',
      isMet: ours / limit <= 2.5,
    },
  ];
}
