import type { Route } from '#contract/route.ts';
import type { RouteName } from '#contract/routes.ts';

let held: string | null = null;

/** Lets nothing of a site be changed from here on, for a reason in words; null ends that. */
export const holdChanges = (reason: string | null): void => void (held = reason);

/** What changes nothing that others see, or was done before. */
const GOES_ON: readonly RouteName[] = [
  'applyOperations',
  'writeTogether',
  'tellHere',
  'tellWriting',
  'whatChanges',
  'findWords',
  'readRedirects',
  'startWalk',
  'readConcerns',
];
/** The caller's own account, and what asks for none. */
const OWN: readonly Route['permission'][] = ['account', 'open', 'link'];

/** Why a route is not called at present, in words; null where it is. */
export const heldBack = (name: RouteName, { method, permission }: Route): string | null =>
  method === 'get' || OWN.includes(permission) || GOES_ON.includes(name) ? null : held;

/** Why nothing is changed at present, in words; null where it is: for ways that are not a route of their own. */
export const changesHeld = (): string | null => held;
