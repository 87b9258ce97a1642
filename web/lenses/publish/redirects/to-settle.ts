import type { Site } from '#core/model/site.ts';
import type { MissedAddress } from '#contract/releases.ts';

/** The addresses asked for in vain that nothing was done about: no redirect was drafted, and they were not let be. */
export function toSettle(missed: readonly MissedAddress[], { settings }: Site): MissedAddress[] {
  const drafted = new Set(settings.redirects.map(({ from }) => from));
  return missed.filter(({ path, isLetBe }) => !isLetBe && !drafted.has(path));
}
