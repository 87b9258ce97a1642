import type { Settings, Site } from '../model/site.ts';

/** What of a site's settings goes live with a release, in the order in which it is told. */
export const SETTINGS_PARTS = [
  'name',
  'language',
  'audiences',
  'labels',
  'menus',
  'layouts',
  'trail',
  'facts',
] as const;
export type SettingsPart = (typeof SETTINGS_PARTS)[number];

const known = new WeakMap<Settings, WeakMap<Settings, readonly SettingsPart[]>>();

/** In what the drafted settings differ from those that visitors have; nothing before the first release, which makes all of it live. */
export function waitingSettings({ settings, liveSettings }: Site): readonly SettingsPart[] {
  if (liveSettings === null || settings === liveSettings) return [];
  const against = known.get(settings) ?? new WeakMap<Settings, readonly SettingsPart[]>();
  known.set(settings, against);
  let parts = against.get(liveSettings);
  if (!parts) {
    parts = SETTINGS_PARTS.filter(
      (part) =>
        settings[part] !== liveSettings[part] && JSON.stringify(settings[part]) !== JSON.stringify(liveSettings[part]),
    );
    against.set(liveSettings, parts);
  }
  return parts;
}
