import type { Audience, AudienceId } from '../model/audience.ts';
import type { AccessTable } from './access.ts';
import { narrowsWho } from '../model/narrowing.ts';
import type { SiteNode } from '../model/node.ts';
import type { Site } from '../model/site.ts';

/** So many tints there are; further audiences take them anew, and are told apart by their letters. */
export const TINTS = 6;

/** How an audience is shown where there is no room for its name. */
export interface AudienceSign {
  readonly audience: AudienceId;
  readonly name: string;
  /** A few letters that no other audience of the site has. */
  readonly letters: string;
  /** From 0 to `TINTS` − 1. */
  readonly tint: number;
}

const known = new WeakMap<readonly Audience[], readonly AudienceSign[]>();

/**
 * The signs of a site's audiences, in their order: as few first letters of the name as tell it apart from the others, and
 * where names are alike a number behind them. The same list again for the same audiences.
 */
export function audienceSigns(audiences: readonly Audience[]): readonly AudienceSign[] {
  let signs = known.get(audiences);
  if (!signs) {
    const names = audiences.map(({ name }) => [...name.replace(/\s+/g, '')]);
    const taken = new Set<string>();
    signs = audiences.map(({ id, name }, at) => {
      const own = names[at]!;
      const length = own.findIndex((_, last) =>
        names.every((other, place) => place === at || !startsAlike(own, other, last + 1)),
      );
      const short = own.slice(0, length === -1 ? own.length : length + 1).join('');
      let letters = short;
      for (let number = 2; taken.has(letters.toLowerCase()); number++) letters = `${short}${number}`;
      taken.add(letters.toLowerCase());
      return { audience: id, name, letters, tint: at % TINTS };
    });
    known.set(audiences, signs);
  }
  return signs;
}

const startsAlike = (a: readonly string[], b: readonly string[], length: number): boolean =>
  a.slice(0, length).join('').toLowerCase() === b.slice(0, length).join('').toLowerCase();

/**
 * The signs of the audiences for whom a row opens (with its passphrase, if it asks for one); null where it opens to
 * everyone, or to nobody.
 */
export function passing(
  { open, asks }: Pick<AccessTable, 'open' | 'asks'>,
  signs: readonly AudienceSign[],
  row: number,
): readonly AudienceSign[] | null {
  const bits = open[row]! | asks[row]!;
  if (bits === 0 || (bits & 1) === 1) return null;
  return signs.filter((_, at) => ((bits >>> (at + 1)) & 1) === 1);
}

/** Whether access narrows at a node: by whom its own rule or one of its labels names, or by a passphrase. */
export const hasGate = ({ settings }: Pick<Site, 'settings'>, node: SiteNode): boolean =>
  node.access !== null && narrowsWho(node.access, settings.labels);
