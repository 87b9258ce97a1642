import { passphrasePage } from '#core/derive/access.ts';
import { type PassphraseId, ruleOf } from '#core/model/access.ts';
import { nodeAt } from '#core/model/site.ts';
import { HTML, NO_INDEX, NO_STORE } from './answer-headers.ts';
import type { LiveView } from './live-view.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { renderPassphrase } from './render-page.ts';

/** The passphrase that a visitor is to give next for the page at a row; null where they are asked for none. */
export function passphraseAt(view: LiveView, row: number | undefined): PassphraseId | null {
  if (row === undefined || view.asks[row] === 0) return null;
  const page = passphrasePage(view.site, view.derived.outline.nodes[row]!.id, view.visitor);
  return page === null ? null : ruleOf(nodeAt(view.site, page)).passphrase;
}

/** The form for the passphrase of the page at a row; `to` is the address that was asked for. */
export const askFor = (view: LiveView, row: number, to: string, isWrong = false): ReadyAnswer =>
  new ReadyAnswer(401, HTML, renderPassphrase(view, row, to, isWrong).text, [
    ...NO_STORE,
    ...NO_INDEX,
    'WWW-Authenticate',
    'Cookie realm="site"',
  ]);
