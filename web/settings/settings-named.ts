import type { Site } from '#core/model/site.ts';
import { type Beside, SETTINGS_KEYS, type SettingsKey } from './settings-keys.ts';
import type { SettingsKind } from './settings-kind.ts';

const LEAST_LETTERS = 2;
const MOST = 4;

/** The settings whose names hold the words that are looked for, each as it stands in the bar: "Layout ‘Handbook’". */
export function settingsNamed(
  settings: Readonly<Record<SettingsKey, SettingsKind>> | null,
  site: Site,
  query: string,
): { readonly beside: Beside; readonly words: string }[] {
  const wanted = query.trim().toLowerCase();
  if (settings === null || wanted.length < LEAST_LETTERS) return [];
  const found = SETTINGS_KEYS.flatMap((key) => {
    const kind = settings[key];
    if (!('items' in kind)) return [];
    return kind
      .items(site)
      .flatMap(({ id, name }) =>
        name.toLowerCase().includes(wanted)
          ? [{ beside: { kind: key, id }, words: `${kind.one[0]!.toUpperCase()}${kind.one.slice(1)} ‘${name}’` }]
          : [],
      );
  });
  return found.slice(0, MOST);
}
