import { type AccessRule, type ClosedLook, type LabelId, NO_RULE, type PassphraseId, ruleOf } from '../model/access.ts';
import { type Audience, type AudienceId, EVERYONE, SIGNED_OUT, closureOf } from '../model/audience.ts';
import type { SectionRule } from '../model/content.ts';
import type { PageId } from '../model/ids.ts';
import type { SiteNode } from '../model/node.ts';
import { rulesOfLabels } from '../model/page-label.ts';
import { type Site, ancestorsOf, nodeAt } from '../model/site.ts';
import type { Outline } from './outline.ts';

/** All audiences that a visitor belongs to, and the passphrases that they have given. */
export type Membership = ReadonlySet<AudienceId | PassphraseId>;
/** A visitor of whom nothing is known. */
export const NOBODY_KNOWN: Membership = new Set([EVERYONE, SIGNED_OUT]);

/** What rules are read from besides the tree: the site's labels. */
export type AccessSettings = Pick<Site['settings'], 'labels'>;

/**
 * Who may open each node at one moment, row by row of the outline; bit `i` of a row stands for the visitor with
 * `memberships[i]`. `docs/access.md` has the rules, one sentence each.
 */
export interface AccessTable {
  /** Who may open the node. */
  readonly open: Uint32Array;
  /** Who may not, and gets its entry with a lock. */
  readonly locked: Uint32Array;
  /** Who will be able to with the passphrases that it asks for; nobody else is asked. */
  readonly asks: Uint32Array;
  /** What a row hands down: whom the audiences of its rules and those above let pass, who has given all passphrases … */
  readonly passes: Uint32Array;
  readonly gave: Uint32Array;
  /** … and as signs whether it is out of time, locked, covered, and told how to look. */
  readonly signs: Uint8Array;
  /** When the next page opens or closes by the clock, in milliseconds since 1970; Infinity where none will. */
  readonly until: number;
}

/** `everyone` and each audience of the site, in this order: the memberships of visitors who are in one audience. */
export const membershipsOf = (audiences: readonly Audience[]): Membership[] =>
  [EVERYONE, ...audiences.map(({ id }) => id)].map((id) => closureOf(audiences, [id]));

type Rows = Pick<Outline, 'nodes' | 'parent' | 'hidden' | 'ruled'>;

/** The table in one pass, for at most 32 visitors. @param at the moment, in milliseconds since 1970 */
export function accessTable(
  rows: Rows,
  settings: AccessSettings,
  memberships: readonly Membership[],
  at: number,
): AccessTable {
  const count = rows.parent.length;
  const table = {
    open: new Uint32Array(count),
    locked: new Uint32Array(count),
    asks: new Uint32Array(count),
    passes: new Uint32Array(count),
    gave: new Uint32Array(count),
    signs: new Uint8Array(count),
  };
  return { ...table, until: fillRows(table, rows, settings, memberships, at, 0, count) };
}

/**
 * The table after rules or hiding have changed at some rows of the same tree, at the same moment: their branches are worked out
 * anew, all else is copied. `until` may be earlier than the next turn of the clock, never later.
 * @param changed rows in any order
 */
export function accessTableAfter(
  before: AccessTable,
  rows: Rows & Pick<Outline, 'end'>,
  settings: AccessSettings,
  memberships: readonly Membership[],
  at: number,
  changed: readonly number[],
): AccessTable {
  const table = {
    open: before.open.slice(),
    locked: before.locked.slice(),
    asks: before.asks.slice(),
    passes: before.passes.slice(),
    gave: before.gave.slice(),
    signs: before.signs.slice(),
  };
  let { until } = before;
  let done = 0;
  for (const row of [...changed].sort((a, b) => a - b)) {
    if (row < done) continue;
    done = rows.end[row]!;
    for (const column of [table.open, table.asks, table.locked]) column.fill(0, row, done);
    until = Math.min(until, fillRows(table, rows, settings, memberships, at, row, done));
  }
  return { ...table, until };
}

/** Works out the rows from one to before another, whose parents are among them or stand in the table, and which nobody can open yet; gives when the clock turns one next. */
function fillRows(
  { open, locked, asks, passes, gave, signs }: Omit<AccessTable, 'until'>,
  { nodes, parent, hidden, ruled }: Rows,
  { labels }: AccessSettings,
  memberships: readonly Membership[],
  at: number,
  from: number,
  to: number,
): number {
  const all = memberships.length === 32 ? 0xffffffff : 2 ** memberships.length - 1;
  const bitsOf = memberBits(memberships);
  const passing = passingBits(bitsOf, all);
  const ofLabels = rulesOfLabels(labels);
  let until = Infinity;
  let next = firstFrom(ruled, from);
  const start = from < to ? parent[from]! : -1;
  // Most sites ask for no passphrase: then everybody has given all of them, and nothing is worked out.
  let isAsked = start !== -1 && gave[start] !== all;
  for (let place = next; !isAsked && ruled[place]! < to; place++)
    isAsked = nodes[ruled[place]!]!.access!.passphrase !== null;
  if (!isAsked) gave.fill(all, from, to);
  for (let row = from; row < to; row++) {
    const above = parent[row]!;
    let pass = above === -1 ? all : passes[above]!;
    let sign = above === -1 ? 0 : signs[above]!;
    if (!isAsked && row !== ruled[next]) {
      // Of nearly all rows nothing is to be worked out but what stands above them.
      if (hidden[row] === 2) sign |= COVERED;
      passes[row] = pass;
      signs[row] = sign;
      if (hidden[row] === 0 && (sign & (OUT_OF_TIME | COVERED)) === 0) {
        open[row] = pass;
        if ((sign & LOCKED) !== 0) locked[row] = all & ~pass;
      }
      continue;
    }
    let given = !isAsked || above === -1 ? all : gave[above]!;
    if (ruled[next] === row) {
      next++;
      const own = nodes[row]!.access!;
      if (own.standsAlone) {
        pass = all;
        given = all;
        sign &= ~OUT_OF_TIME;
      }
      if (own.passphrase !== null) given = (given & bitsOf(own.passphrase)) >>> 0;
      for (const rule of rulesAt(own, ofLabels)) {
        pass = (pass & passing(rule)) >>> 0;
        if (rule.closedLook !== null)
          sign = TOLD | (rule.closedLook === 'out-of-sight' ? sign & ~LOCKED : sign | LOCKED);
        if (rule.from === null && rule.until === null) continue;
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
    if (isAsked) gave[row] = given;
    if (hidden[row] !== 0 || (sign & (OUT_OF_TIME | COVERED)) !== 0) continue;
    open[row] = pass & given;
    if (isAsked) asks[row] = pass & ~given;
    if ((sign & LOCKED) !== 0) locked[row] = all & ~(pass & given);
    // Whom a passphrase would let in sees its lock, unless a rule says how the page looks to those who cannot open it.
    else if (isAsked && (sign & TOLD) === 0) locked[row] = asks[row]!;
  }
  return until;
}

/** The place of the first entry of a sorted list that is not below a number. */
function firstFrom(sorted: readonly number[], least: number): number {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! < least) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** The rules that hold at a page of its own: those of its labels in the order of their ids, then the page's own, which has the last word. */
export function rulesAt(own: AccessRule, ofLabels: ReadonlyMap<LabelId, AccessRule>): AccessRule[] {
  return own.labels.length === 0 ? [own] : [...own.labels.map((label) => ruleOfLabel(label, ofLabels)), own];
}

/** A label that the site does not know lets nobody pass. */
const ruleOfLabel = (label: LabelId, ofLabels: ReadonlyMap<LabelId, AccessRule>): AccessRule =>
  ofLabels.get(label) ?? NOBODY;
const NOBODY: AccessRule = { ...NO_RULE, only: [] };

const OUT_OF_TIME = 1;
const LOCKED = 2;
const COVERED = 4;
/** A rule says how it looks to those who cannot open it. */
const TOLD = 8;

/** Which visitors belong to an audience, or have given a passphrase, as bits. */
function memberBits(memberships: readonly Membership[]): (id: AudienceId | PassphraseId) => number {
  const known = new Map<string, number>();
  return (id) => {
    let bits = known.get(id);
    if (bits === undefined) {
      bits = memberships.reduce((sum, visitor, bit) => (visitor.has(id) ? sum + 2 ** bit : sum), 0);
      known.set(id, bits);
    }
    return bits;
  };
}

/** Which visitors a rule's audiences let pass, as bits. */
const passingBits =
  (bitsOf: (id: AudienceId) => number, all: number) =>
  ({ only, except }: AccessRule): number => {
    let bits = only === null ? all : 0;
    if (only !== null) for (const id of only) bits |= bitsOf(id);
    for (const id of except) bits &= ~bitsOf(id);
    return bits >>> 0;
  };

/** Whether a rule's audiences let a visitor pass. */
export const letsPass = ({ only, except }: Pick<AccessRule, 'only' | 'except'>, visitor: Membership): boolean =>
  (only === null || only.some((id) => visitor.has(id))) && !except.some((id) => visitor.has(id));

/**
 * Whether a visitor gets a section of a text. One that is kept from an audience which the site does not have is for nobody:
 * it is not given to all because the audience is removed.
 */
export const seesSection = (
  rule: SectionRule,
  visitor: Membership,
  { audiences }: Pick<Site['settings'], 'audiences'>,
): boolean => letsPass(rule, visitor) && rule.except.every((id) => audiences.some((one) => one.id === id));

/** Whether a rule's window is open at a moment: from its first one on, and until just before its last one. */
export const isInTime = ({ from, until }: AccessRule, at: number): boolean =>
  (from === null || Date.parse(from) <= at) && (until === null || at < Date.parse(until));

/** Who finds pages besides by the tree: the site's own search, and search engines. */
export type Finder = 'search' | 'engines';

/** The rows by whose rule each row is held back from a finder, their own or one above; -1 where none is. */
export function heldBackRows(
  { nodes, end, ruled }: Pick<Outline, 'nodes' | 'end' | 'ruled'>,
  { labels }: AccessSettings,
  from: Finder,
): Int32Array {
  const by = new Int32Array(nodes.length).fill(-1);
  const ofLabels = rulesOfLabels(labels);
  let done = 0;
  for (const row of ruled) {
    // The topmost branch that is held back decides for all in it.
    if (row < done) continue;
    const held = rulesAt(nodes[row]!.access!, ofLabels).map((rule) => rule[from]);
    if (held.includes('branch')) by.fill(row, row, (done = end[row]!));
    else if (held.some((one) => one !== 'no')) by[row] = row;
  }
  return by;
}

/** 1 where the clock will close a row: a rule of its own, or of one above, has a last moment that is to come. @param at in milliseconds since 1970 */
export function closingRows(
  { nodes, parent }: Pick<Outline, 'nodes' | 'parent'>,
  { labels }: AccessSettings,
  at: number,
): Uint8Array {
  const closing = new Uint8Array(nodes.length);
  const ofLabels = rulesOfLabels(labels);
  for (let row = 0; row < nodes.length; row++) {
    const { access } = nodes[row]!;
    const isAbove = parent[row] !== -1 && closing[parent[row]!] === 1 && access?.standsAlone !== true;
    const isHere =
      access !== null && rulesAt(access, ofLabels).some(({ until }) => until !== null && Date.parse(until) > at);
    if (isAbove || isHere) closing[row] = 1;
  }
  return closing;
}

/** Every passphrase that pages of a site ask for. */
export const passphrasesIn = (site: Site): Set<PassphraseId> => {
  const found = new Set<PassphraseId>();
  for (const { access } of site.nodes.values())
    if (access !== null && access.passphrase !== null) found.add(access.passphrase);
  return found;
};

/** The page whose passphrase a visitor has to give next to open one: the topmost of those that it asks for; null where it asks for none. */
export function passphrasePage(site: Site, page: PageId, visitor: Membership): PageId | null {
  const path = [...ancestorsOf(site, page).reverse(), nodeAt(site, page)];
  const from = path.findLastIndex(({ access }) => access?.standsAlone === true);
  const asking = path
    .slice(Math.max(from, 0))
    .find(({ access }) => access !== null && access.passphrase !== null && !visitor.has(access.passphrase));
  return asking?.id ?? null;
}

/** One thing on the way from the root that keeps some visitors out. */
export interface Narrowing {
  readonly page: PageId;
  readonly by: 'hidden' | 'hidden-branch' | 'audiences' | 'window' | 'passphrase';
  readonly rule: AccessRule;
  /** The label whose rule it is; null for the page's own. */
  readonly label: LabelId | null;
  /** Whether it keeps the visitor out who is asked about. */
  readonly keepsOut: boolean;
}

export interface AccessReason {
  readonly opens: boolean;
  /** It does not open, and will with the passphrases that it asks for. */
  readonly asks: boolean;
  readonly closedLook: ClosedLook;
  /** All that narrows the page, from the root; what stands above a page that stands alone does not, unless it hides a branch. */
  readonly chain: readonly Narrowing[];
}

/** What decided an answer: the first that keeps the visitor out (a passphrase, which they can give, last of all), or the last that lets them through; undefined where nothing narrows it. */
export const decidingNarrowing = ({ chain }: Pick<AccessReason, 'chain'>): Narrowing | undefined =>
  chain.find(({ keepsOut, by }) => keepsOut && by !== 'passphrase') ??
  chain.find(({ keepsOut }) => keepsOut) ??
  chain.at(-1);

/** The page whose rule decided an answer; null where nothing narrows it. */
export const decidingPage = (reason: AccessReason): PageId | null => decidingNarrowing(reason)?.page ?? null;

/** Why a visitor may open a node or may not, at a moment. */
export function accessReason(site: Site, page: PageId, visitor: Membership, at: number): AccessReason {
  const node = nodeAt(site, page);
  const path: SiteNode[] = [...ancestorsOf(site, page).reverse(), node];
  const from = path.findLastIndex(({ access }) => access?.standsAlone === true);
  const chain: Narrowing[] = [];
  let told: ClosedLook | null = null;
  const labels = rulesOfLabels(site.settings.labels);
  path.forEach((one, step) => {
    const own = ruleOf(one);
    const add = (by: Narrowing['by'], keepsOut: boolean, rule = own, label: LabelId | null = null) =>
      chain.push({ page: one.id, by, rule, label, keepsOut });
    if (one.hidden === 'branch') add('hidden-branch', true);
    else if (one.hidden === 'page' && one === node) add('hidden', true);
    const rules = [...own.labels.map((label) => [ruleOfLabel(label, labels), label] as const), [own, null] as const];
    for (const [rule] of rules) if (rule.closedLook !== null) told = rule.closedLook;
    if (step < from) return;
    for (const [rule, label] of rules) {
      if (rule.only !== null || rule.except.length > 0) add('audiences', !letsPass(rule, visitor), rule, label);
      if (rule.from !== null || rule.until !== null) add('window', !isInTime(rule, at), rule, label);
    }
    if (own.passphrase !== null) add('passphrase', !visitor.has(own.passphrase));
  });
  const out = chain.filter(({ keepsOut }) => keepsOut);
  const asks = out.length > 0 && out.every(({ by }) => by === 'passphrase');
  const isByRules = out.every(({ by }) => by === 'audiences' || by === 'passphrase');
  return {
    opens: out.length === 0,
    asks,
    closedLook: isByRules ? (told ?? (asks ? 'locked' : 'out-of-sight')) : 'out-of-sight',
    chain,
  };
}
