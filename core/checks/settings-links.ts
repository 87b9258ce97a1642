import { type EntryId, type MenuId, allEntries } from '../model/menu.ts';
import type { RedirectId } from '../model/redirect.ts';
import type { Settings } from '../model/site.ts';
import type { Texts } from '../model/texts.ts';
import type { OutsideAnswer } from './link-findings.ts';

/** A link to an outside web address that stands in no page: in an entry of a menu, or as where a redirect leads. */
export interface SettingsLink {
  readonly of:
    | { readonly menu: MenuId; readonly entry: EntryId; readonly label: Texts }
    | { readonly redirect: RedirectId; readonly from: string };
  readonly address: string;
}

/** One that did not answer as it should when it was last asked. */
export interface SettingsFinding extends SettingsLink, Omit<OutsideAnswer, 'address'> {}

/** The outside web addresses that menus and redirects lead to, menu by menu as each is kept now. */
export function outsideLinksOfSettings({ menus, redirects }: Pick<Settings, 'menus' | 'redirects'>): SettingsLink[] {
  const ofMenus = menus.flatMap(({ id, isByHand, arranged, extras }) =>
    [...(isByHand ? allEntries(arranged?.entries ?? []) : extras)].flatMap(({ id: entry, label, target }) =>
      target !== null && 'url' in target ? [{ of: { menu: id, entry, label }, address: target.url }] : [],
    ),
  );
  const ofRedirects = redirects.flatMap(({ id, from, to }) =>
    to !== 'gone' && 'url' in to ? [{ of: { redirect: id, from }, address: to.url }] : [],
  );
  return [...ofMenus, ...ofRedirects].filter(({ address }) => /^https?:/i.test(address));
}

/** Links of menus and redirects with what was heard of them, where that is to be told. */
export function settingsFindings(
  settings: Pick<Settings, 'menus' | 'redirects'>,
  answers: readonly OutsideAnswer[],
): SettingsFinding[] {
  const byAddress = new Map(answers.map((answer) => [answer.address, answer]));
  return outsideLinksOfSettings(settings).flatMap((link) => {
    const answer = byAddress.get(link.address);
    return answer ? [{ ...link, fault: answer.fault, says: answer.says }] : [];
  });
}
