import { passphrasePage } from '#core/derive/access.ts';
import { type PassphraseId, ruleOf } from '#core/model/access.ts';
import { nodeAt } from '#core/model/site.ts';
import { HTML, NO_INDEX, NO_STORE } from './answer-headers.ts';
import { decoded } from './leads.ts';
import type { LiveView } from './live-view.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { renderPassphrase } from './render-page.ts';

const rowAt = ({ derived }: LiveView, address: string): number | undefined => derived.rowAt.get(decoded(address) ?? '');

/** The passphrase that a visitor is to give next for the page at an address; null where they are asked for none. */
export function passphraseAt(view: LiveView, address: string): PassphraseId | null {
  const row = rowAt(view, address);
  if (row === undefined || view.asks[row] === 0) return null;
  const page = passphrasePage(view.site, view.derived.outline.nodes[row]!.id, view.visitor);
  return page === null ? null : ruleOf(nodeAt(view.site, page)).passphrase;
}

/** The form for the passphrase of the page at an address, for somebody who gave a wrong one; undefined where there is no page. */
export function askAgain(view: LiveView, address: string): ReadyAnswer | undefined {
  const row = rowAt(view, address);
  if (row === undefined) return undefined;
  return new ReadyAnswer(401, HTML, renderPassphrase(view, row, address, true), [...NO_STORE, ...NO_INDEX]);
}
