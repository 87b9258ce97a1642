import { upTo } from '#core/model/cut-text.ts';
import { nameOfSection } from '#core/sections/all-sections.ts';
import type { About } from '#core/talk/thread.ts';
import { ALL_LENSES } from '../lenses/all-lenses.ts';

/** What of a page something is said about, in a few words; null for the page as a whole. */
export function aboutWords(about: About): string | null {
  if (about === null) return null;
  if ('exact' in about) return `‘${about.exact}’`;
  if ('section' in about) {
    const name = nameOfSection(about.section) ?? 'A section';
    return about.begins === '' ? name : `${name}: ‘${upTo(about.begins, '\n')}’`;
  }
  return `In the ${ALL_LENSES[about.lens].name} lens`;
}
