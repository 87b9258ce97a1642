import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import type { TrailSetting } from '../model/trail-setting.ts';
import type { Derived } from './derived.ts';
import { trailSettingOf } from './layouts.ts';
import { type TrailStep, trailOf } from './trail.ts';

/** A step of a trail as it shows. */
export interface ShownStep extends TrailStep {
  readonly isCurrent: boolean;
  /** Whether it is left out in the middle of a long trail; screen readers have it all the same. */
  readonly isFolded: boolean;
}

/** A trail as visitors see it. */
export interface ShownTrail {
  readonly leadIn: string;
  readonly separator: string;
  /** Empty where the trail is off. */
  readonly steps: readonly ShownStep[];
}

/** A page's trail as its nearest setting shows it; for a visitor, by what is `derived` for them. */
export const shownTrail = (site: Site, page: PageId, visitors?: Derived): ShownTrail =>
  trailBy(site, page, trailSettingOf(site, page).setting, visitors);

/** A page's trail as a setting shows it. */
export function trailBy(site: Site, page: PageId, setting: TrailSetting, visitors?: Derived): ShownTrail {
  const { isShown, start, withHome, homeLabel, leadIn, current, separator, most } = setting;
  const { language } = site.settings;
  const words = { leadIn: textIn(leadIn, language), separator };
  if (!isShown) return { ...words, steps: [] };
  const full = trailOf(site, page, visitors);
  const [home, ...below] = full;
  const homeStands = home !== undefined && home.address === '/';
  const way = homeStands ? below : full;
  const steps: TrailStep[] = [
    ...(homeStands && withHome && (below.length > 0 || home.page === page)
      ? [{ ...home, text: textIn(homeLabel, language) || home.text }]
      : []),
    ...fromStart(way, start),
  ];
  if (current === 'left out' && steps.at(-1)?.page === page) steps.pop();
  // The first step and the last ones stay; what lies between gives way.
  const folded = most !== null && steps.length > most ? steps.length - most : 0;
  return {
    ...words,
    steps: steps.map((step, index) => ({
      ...step,
      address: step.page === page && current !== 'linked' ? null : step.address,
      isCurrent: step.page === page,
      isFolded: index >= 1 && index <= folded,
    })),
  };
}

/** The way from where a trail starts; from the top where that is not on it. */
function fromStart(way: readonly TrailStep[], start: TrailSetting['start']): readonly TrailStep[] {
  if (start === 'top') return way;
  if ('up' in start) return way.slice(Math.max(0, way.length - 1 - start.up));
  const at = way.findIndex((step) => step.page === start.page);
  return at === -1 ? way : way.slice(at);
}
