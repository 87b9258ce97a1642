import type { AnswerOf } from '#contract/routes.ts';
import { call } from './client.ts';

type Tree = AnswerOf<'showTree'>;
let ahead: { readonly site: string; readonly tree: Promise<Tree> } | null = null;

/** Asks for the tree of a site while the scripts that show it are still on their way. */
export function askAhead(site: string): void {
  const tree = call('showTree', { site });
  // Whoever takes it is told; where nobody does, it is no fault.
  tree.catch(() => undefined);
  ahead = { site, tree };
}

/** The tree of a site: the one that was asked for ahead, once, else as it is now. @throws ServerProblem, NoAnswer */
export function treeOf(site: string): Promise<Tree> {
  const asked = ahead?.site === site ? ahead.tree : null;
  ahead = null;
  const ask = () => call('showTree', { site });
  // What was asked for before somebody signed in was refused.
  return asked ? asked.catch(ask) : ask();
}
