import { isSameJson } from '../model/canonical-json.ts';
import { SETTINGS_PARTS, type SettingsPart } from '../model/settings-parts.ts';
import type { Settings, Site } from '../model/site.ts';

const known = new WeakMap<Settings, WeakMap<Settings, readonly SettingsPart[]>>();

/** In what two states of a site's settings differ. */
export function settingsDifferences(before: Settings, after: Settings): readonly SettingsPart[] {
  if (before === after) return [];
  const against = known.get(after) ?? new WeakMap<Settings, readonly SettingsPart[]>();
  known.set(after, against);
  let parts = against.get(before);
  if (!parts) {
    parts = SETTINGS_PARTS.filter((part) => !isSameJson(after[part], before[part]));
    against.set(before, parts);
  }
  return parts;
}

/** In what the drafted settings differ from those that visitors have; nothing before the first release, which makes all of it live. */
export const waitingSettings = ({ settings, liveSettings }: Site): readonly SettingsPart[] =>
  liveSettings === null ? [] : settingsDifferences(liveSettings, settings);
