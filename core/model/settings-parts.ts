import { isSameJson } from './canonical-json.ts';
import type { Settings } from './site.ts';

/** What of a site's settings goes live with a release, in the order in which it is told. The home page goes with every one. */
export const SETTINGS_PARTS = [
  'name',
  'language',
  'audiences',
  'labels',
  'menus',
  'layouts',
  'trail',
  'facts',
  'shared',
  'forms',
  'look',
  'hosts',
  'redirects',
  'timeZone',
] as const satisfies readonly (keyof Settings)[];
export type SettingsPart = (typeof SETTINGS_PARTS)[number];

/** The settings with some parts of others; where these are the same, so are the settings. */
export function withParts(settings: Settings, parts: readonly SettingsPart[], from: Settings): Settings {
  let next: { -readonly [Key in keyof Settings]: Settings[Key] } | null = null;
  for (const part of parts) {
    if (isSameJson(settings[part], from[part])) continue;
    next ??= { ...settings };
    Object.assign(next, { [part]: from[part] });
  }
  return next ?? settings;
}
