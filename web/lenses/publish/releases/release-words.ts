import type { ReleaseSummary } from '#contract/releases.ts';
import { listOf, pages } from '../../../tree/words.ts';
import { SETTINGS_WORDS } from '../publish-words.ts';

/** What a release did: "3 pages live, the menus". */
export const releaseWords = ({ pages: live, retired, settings }: ReleaseSummary): string =>
  [
    live > 0 && `${pages(live)} live`,
    retired > 0 && `${pages(retired)} down`,
    settings.length > 0 && listOf(settings.map((part) => SETTINGS_WORDS[part])),
  ]
    .filter(Boolean)
    .join(', ');

/** What a release is known by: "12: Open days", or what it did where it has no name. */
export const releaseName = (release: ReleaseSummary): string =>
  `${release.number}: ${release.name || releaseWords(release) || 'A release'}`;
