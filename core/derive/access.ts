import { type AccessRule, type ClosedLook, ruleOf } from '../model/access.ts';
import { type Audience, type AudienceId, EVERYONE, closureOf } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import { type Site, ancestorsOf, nodeAt } from '../model/site.ts';
import type { Outline } from './outline.ts';

/** All audiences that a visitor belongs to. */
export type Membership = ReadonlySet<AudienceId>;

/**
 * Who may open each node at one moment, row by row of the outline; bit `i` of a row stands for the visitor with
 * `memberships[i]`. `docs/access.md` has the rules, one sentence each.
 */
export interface AccessTable {
  /** Who may open the node. */
  readonly open: Uint32Array;
  /** Who may not, and gets its entry with a lock. */
  readonly locked: Uint32Array;
  /** When the next page opens or closes by the clock, in milliseconds since 1970; Infinity where none will. */
  readonly until: number;
}

/** `everyone` and each audience of the site, in this order: the memberships of visitors who are in one audience. */
export const membershipsOf = (audiences: readonly Audience[]): Membership[] =>
  [EVERYONE, ...audiences.map(({ id }) => id)].map((id) => closureOf(audiences, [id]));

/** The table in one pass, for at most 32 visitors. @param at the moment, in milliseconds since 1970 */
export function accessTable(
  { nodes, parent, hidden, ruled }: Pick<Outline, 'nodes' | 'parent' | 'hidden' | 'ruled'>,
  memberships: readonly Membership[],
  at: number,
): AccessTable {
  const all = memberships.length === 32 ? 0xffffffff : 2 ** memberships.length - 1;
  const count = parent.length;
  const open = new Uint32Array(count);
  const locked = new Uint32Array(count);
  /** What a row hands down: whom its own rule and those above let pass; as signs whether it is out of time, locked, covered. */
  const passes = new Uint32Array(count);
  const signs = new Uint8Array(count);
  const bitsOf = passingBits(memberships, all);
  let until = Infinity;
  let next = 0;
  for (let row = 0; row < count; row++) {
    const above = parent[row]!;
    let pass = above === -1 ? all : passes[above]!;
    let sign = above === -1 ? 0 : signs[above]!;
    if (ruled[next] === row) {
      next++;
      const rule = nodes[row]!.access!;
      if (rule.standsAlone) {
        pass = all;
        sign &= ~OUT_OF_TIME;
      }
      pass = (pass & bitsOf(rule)) >>> 0;
      if (rule.closedLook !== null) sign = rule.closedLook === 'locked' ? sign | LOCKED : sign & ~LOCKED;
      if (rule.from !== null || rule.until !== null) {
        if (!isInTime(rule, at)) sign |= OUT_OF_TIME;
        for (const moment of [rule.from, rule.until]) {
          const turns = moment === null ? Infinity : Date.parse(moment);
          if (turns > at && turns < until) until = turns;
        }
      }
    }
    if (hidden[row] === 2) sign |= COVERED;
    passes[row] = pass;
    signs[row] = sign;
    if (hidden[row] !== 0 || (sign & (OUT_OF_TIME | COVERED)) !== 0) continue;
    open[row] = pass;
    if ((sign & LOCKED) !== 0) locked[row] = (all & ~pass) >>> 0;
  }
  return { open, locked, until };
}

const OUT_OF_TIME = 1;
const LOCKED = 2;
const COVERED = 4;

/** Which visitors a rule lets pass, as bits: found by the audiences that it names. */
function passingBits(memberships: readonly Membership[], all: number): (rule: AccessRule) => number {
  const known = new Map<AudienceId, number>();
  const bitsOf = (id: AudienceId): number => {
    let bits = known.get(id);
    if (bits === undefined) {
      bits = memberships.reduce((sum, visitor, bit) => (visitor.has(id) ? sum + 2 ** bit : sum), 0);
      known.set(id, bits);
    }
    return bits;
  };
  return ({ only, except }) => {
    let bits = only === null ? all : 0;
    if (only !== null) for (const id of only) bits |= bitsOf(id);
    for (const id of except) bits &= ~bitsOf(id);
    return bits >>> 0;
  };
}

/** Whether a rule's audiences let a visitor pass. */
export const letsPass = ({ only, except }: AccessRule, visitor: Membership): boolean =>
  (only === null || only.some((id) => visitor.has(id))) && !except.some((id) => visitor.has(id));

/** Whether a rule's window is open at a moment: from its first one on, and until just before its last one. */
export const isInTime = ({ from, until }: AccessRule, at: number): boolean =>
  (from === null || Date.parse(from) <= at) && (until === null || at < Date.parse(until));

/** Who finds pages besides by the tree: the site's own search, and search engines. */
export type Finder = 'search' | 'engines';

/** The rows by whose rule each row is held back from a finder, their own or one above; -1 where none is. */
export function heldBackRows({ nodes, parent }: Pick<Outline, 'nodes' | 'parent'>, from: Finder): Int32Array {
  const by = new Int32Array(nodes.length);
  const byBranch = new Int32Array(nodes.length);
  for (let row = 0; row < nodes.length; row++) {
    const held = nodes[row]!.access?.[from] ?? 'no';
    const above = parent[row] === -1 ? -1 : byBranch[parent[row]!]!;
    byBranch[row] = above !== -1 ? above : held === 'branch' ? row : -1;
    by[row] = above !== -1 ? above : held === 'no' ? -1 : row;
  }
  return by;
}

/** One thing on the way from the root that keeps some visitors out. */
export interface Narrowing {
  readonly page: PageId;
  readonly by: 'hidden' | 'hidden-branch' | 'audiences' | 'window';
  readonly rule: AccessRule;
  /** Whether it keeps the visitor out who is asked about. */
  readonly keepsOut: boolean;
}

export interface AccessReason {
  readonly opens: boolean;
  readonly closedLook: ClosedLook;
  /** All that narrows the page, from the root; what stands above a page that stands alone does not, unless it hides a branch. */
  readonly chain: readonly Narrowing[];
}

/** The page whose rule decided an answer: the first that keeps the visitor out, or the last that lets them through; null where nothing narrows it. */
export const decidingPage = ({ chain }: AccessReason): PageId | null =>
  (chain.find(({ keepsOut }) => keepsOut) ?? chain.at(-1))?.page ?? null;

/** Why a visitor may open a node or may not, at a moment. */
export function accessReason(site: Site, page: PageId, visitor: Membership, at: number): AccessReason {
  const node = nodeAt(site, page);
  const path: SiteNode[] = [...ancestorsOf(site, page).reverse(), node];
  const from = path.findLastIndex(({ access }) => access?.standsAlone === true);
  const chain: Narrowing[] = [];
  let closedLook: ClosedLook = 'out-of-sight';
  path.forEach((one, step) => {
    const rule = ruleOf(one);
    const add = (by: Narrowing['by'], keepsOut: boolean) => chain.push({ page: one.id, by, rule, keepsOut });
    if (one.hidden === 'branch') add('hidden-branch', true);
    else if (one.hidden === 'page' && one === node) add('hidden', true);
    if (rule.closedLook !== null) ({ closedLook } = rule);
    if (step < from) return;
    if (rule.only !== null || rule.except.length > 0) add('audiences', !letsPass(rule, visitor));
    if (rule.from !== null || rule.until !== null) add('window', !isInTime(rule, at));
  });
  const out = chain.filter(({ keepsOut }) => keepsOut);
  return {
    opens: out.length === 0,
    closedLook: out.every(({ by }) => by === 'audiences') ? closedLook : 'out-of-sight',
    chain,
  };
}
