import { isSameJson } from '../model/canonical-json.ts';
import type { SettingsPart } from '../model/settings-parts.ts';
import type { Settings } from '../model/site.ts';

/** What differs within a part of the settings: things by their names, or a value before and after. */
export type SettingsItems =
  | { readonly kind: 'things'; readonly came: string[]; readonly went: string[]; readonly changed: string[] }
  | { readonly kind: 'value'; readonly before: string; readonly after: string }
  | { readonly kind: 'whole' };

/** What differs in a part between two settings, for people. */
export function settingsItems(before: Settings, after: Settings, part: SettingsPart): SettingsItems {
  switch (part) {
    case 'name':
    case 'language':
    case 'timeZone':
      return { kind: 'value', before: before[part], after: after[part] };
    case 'trail':
    case 'look':
      return { kind: 'whole' };
    case 'hosts':
      return things(
        before.hosts.map((one) => [one, one, one]),
        after.hosts.map((one) => [one, one, one]),
      );
    case 'redirects':
      return things(
        before.redirects.map((one) => [one.id, one.from, one]),
        after.redirects.map((one) => [one.id, one.from, one]),
      );
    default:
      return things(
        before[part].map((one) => [one.id, one.name, one]),
        after[part].map((one) => [one.id, one.name, one]),
      );
  }
}

type Thing = readonly [id: string, name: string, whole: unknown];

function things(before: readonly Thing[], after: readonly Thing[]): SettingsItems {
  const was = new Map(before.map((one) => [one[0], one]));
  const is = new Map(after.map((one) => [one[0], one]));
  return {
    kind: 'things',
    came: after.filter(([id]) => !was.has(id)).map(([, name]) => name),
    went: before.filter(([id]) => !is.has(id)).map(([, name]) => name),
    changed: after
      .filter(([id, , whole]) => was.has(id) && !isSameJson(was.get(id)![2], whole))
      .map(([, name]) => name),
  };
}
