import { type Audience, SIGNED_OUT_NAME, closureOf } from '../model/audience.ts';
import { listFormatter } from '../model/formatters.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { type Membership, NOBODY_KNOWN, accessReason } from './access.ts';

/** To whom a page opens, in as few audiences as say it. */
export interface WhoOpens {
  /** Whether it opens to visitors who are not signed in. */
  readonly signedOut: boolean;
  /** Audiences that it opens to. Those that one of them includes are not named besides, unless `except` leaves them out otherwise. */
  readonly audiences: readonly Audience[];
  /** Audiences within these that it does not open to. */
  readonly except: readonly Audience[];
}

/** To whom a page opens at a moment, from all rules that hold at it; a passphrase that it asks for is not reckoned. @param at in milliseconds since 1970 */
export function whoOpens(site: Site, page: PageId, at: number): WhoOpens {
  const { audiences } = site.settings;
  const isOpenTo = (visitor: Membership) => {
    const { opens, asks } = accessReason(site, page, visitor, at);
    return opens || asks;
  };
  const aboveOf = new Map(audiences.map(({ id }) => [id, closureOf(audiences, [id])]));
  const isOpen = new Map(audiences.map(({ id }) => [id, isOpenTo(aboveOf.get(id)!)]));
  const around = ({ id }: Audience, open: boolean) =>
    audiences.filter((one) => one.id !== id && aboveOf.get(id)!.has(one.id) && isOpen.get(one.id) === open);
  const except = audiences.filter((one) => !isOpen.get(one.id) && around(one, true).length > 0);
  return {
    signedOut: isOpenTo(NOBODY_KNOWN),
    audiences: audiences.filter(
      (one) =>
        isOpen.get(one.id) &&
        (around(one, true).length === 0 || around(one, false).some((out) => except.includes(out))),
    ),
    except: except.filter((one) => !around(one, false).some((out) => except.includes(out))),
  };
}

/** The same as a part of a sentence: “Staff and Governors, but not to Trainees”; null where it opens to no audience that has a name. */
export function whoOpensWords({ signedOut, audiences, except }: WhoOpens): string | null {
  const names = [...audiences.map(({ name }) => name), ...(signedOut ? [SIGNED_OUT_NAME] : [])];
  if (names.length === 0) return null;
  const list = listFormatter('en', { type: 'conjunction' });
  const left = except.map(({ name }) => name);
  return list.format(names) + (left.length === 0 ? '' : `, but not to ${list.format(left)}`);
}
